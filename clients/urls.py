"""Addresses of the clients area."""

from django.urls import path

from clients.pages import intake_views, views

app_name = "clients"
urlpatterns = [
    path("", views.client_list, name="list"),
    path("new/", intake_views.begin, name="new"),
    path("first-visits/<int:pk>/", intake_views.intake, name="intake"),
    path("first-visits/<int:pk>/keep/", intake_views.keep_intake, name="keep-intake"),
    path("first-visits/<int:pk>/drop/", intake_views.drop_intake, name="drop-intake"),
    path("<int:pk>/", views.page, name="page"),
    path("<int:pk>/edit/", views.edit, name="edit"),
    path("<int:pk>/remove/", views.remove, name="remove"),
    path("<int:pk>/weigh-in/", views.weigh_in, name="weigh-in"),
    path("<int:pk>/weigh-ins/<int:weighed>/", views.correct_weigh_in, name="correct-weigh-in"),
    path("<int:pk>/weigh-ins/<int:weighed>/remove/", views.remove_weigh_in, name="remove-weigh-in"),
    path("<int:pk>/shares/", views.shares, name="shares"),
    path("<int:pk>/watched/", views.watched, name="watched"),
    path("<int:pk>/retarget/", views.retarget, name="retarget"),
    path("<int:pk>/hold/", views.hold, name="hold"),
    path("<int:pk>/cautions/", views.dismiss, name="dismiss"),
    path("<int:pk>/cautions/<int:dismissal>/back/", views.bring_back, name="bring-back"),
    path("<int:pk>/targets/<str:key>/", views.target, name="target"),
    path("<int:pk>/targets/<str:key>/computed/", views.use_computed, name="use-computed"),
]
