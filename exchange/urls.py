"""Addresses of files in the formats of others."""

from django.urls import path

from exchange import views

app_name = "exchange"
urlpatterns = [
    path("client/", views.coming, name="coming"),
    path("tables/", views.tables, name="tables"),
    path("values/", views.values, name="values"),
    path("client.fhir.json", views.out, {"kind": "fhir.json"}, name="fhir"),
    path("plans.csv", views.out, {"kind": "plans.csv"}, name="plans"),
    path("logs.csv", views.out, {"kind": "logs.csv"}, name="logs"),
]
