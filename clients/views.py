"""Client list, a client's page, targets by hand, weigh-ins."""

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.attention import reasons, weekly_pace
from clients.context import SESSION_KEY
from clients.forms import ClientForm, OverrideForm, WeighInForm
from clients.in_force import targets_in_force
from clients.models import Client, TargetOverride, WeighIn
from nutrition import targets
from nutrition.nutrients import NUTRIENT
from practice.versioned import StaleSave


def client_list(request: HttpRequest) -> HttpResponse:
    today = timezone.localdate()
    rows = []
    for client in Client.objects.all():
        rows.append(
            {
                "client": client,
                "reasons": reasons(client, today),
                "weight": client.last_weight_kg or client.weight_kg,
                "pace": weekly_pace(client),
                "day": client.days.first(),
            }
        )
    rows.sort(key=lambda row: (-len(row["reasons"]), row["client"].name))
    return render(request, "clients/list.html", {"rows": rows})


def new(request: HttpRequest) -> HttpResponse:
    form = ClientForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        client = form.save(commit=False)
        client.practice = request.user.practice
        client.save()
        return redirect("clients:page", client.pk)
    return render(request, "clients/form.html", {"form": form})


def page(request: HttpRequest, pk: int) -> HttpResponse:
    client = get_object_or_404(Client, pk=pk)
    request.session[SESSION_KEY] = client.pk
    try:
        rows, problem = list(targets_in_force(client).values()), ""
    except targets.OutOfRange as error:
        rows, problem = [], str(error)
    weigh_ins = list(client.weigh_ins.order_by("-date")[:12])
    context = {
        "client": client,
        "rows": [row for row in rows if row.watched],
        "others": [row for row in rows if not row.watched],
        "problem": problem,
        "weigh_ins": weigh_ins,
        "pace": weekly_pace(client),
        "reasons": reasons(client, timezone.localdate()),
        "days": client.days.all()[:7],
        "bowls": client.bowl_set.all(),
        "weigh_in_form": WeighInForm(initial={"date": timezone.localdate()}),
        "history": client.overrides.select_related("by")[:12],
    }
    return render(request, "clients/page.html", context)


def edit(request: HttpRequest, pk: int) -> HttpResponse:
    client = get_object_or_404(Client, pk=pk)
    form = ClientForm(request.POST or None, instance=client)
    stale = None
    if request.method == "POST" and form.is_valid():
        try:
            form.instance.save_over(form.cleaned_data["version"] or 0)
            return redirect("clients:page", client.pk)
        except StaleSave as error:
            stale = error.current
            form.data = form.data.copy()
            form.data["version"] = stale.version
    changed = [
        (form.fields[name].label or name, getattr(stale, name), form.cleaned_data[name])
        for name in (ClientForm.Meta.fields if stale else [])
        if getattr(stale, name) != form.cleaned_data[name]
    ]
    return render(
        request, "clients/form.html", {"form": form, "client": client, "stale": stale, "changed": changed}, status=409 if stale else 200
    )


@require_POST
def focus(request: HttpRequest) -> HttpResponse:
    pk = request.POST.get("client", "")
    if pk.isdigit() and Client.objects.filter(pk=pk).exists():
        request.session[SESSION_KEY] = int(pk)
    else:
        request.session.pop(SESSION_KEY, None)
    return redirect("clients:list")


@require_POST
def weigh_in(request: HttpRequest, pk: int) -> HttpResponse:
    client = get_object_or_404(Client, pk=pk)
    form = WeighInForm(request.POST)
    if form.is_valid():
        WeighIn.objects.update_or_create(client=client, date=form.cleaned_data["date"], defaults={"kg": form.cleaned_data["kg"]})
        messages.success(request, f"{form.cleaned_data['kg']:g} kg recorded.")
        return redirect("clients:page", pk)
    return render(request, "clients/weigh_in.html", {"client": client, "form": form}, status=400)


def _key(key: str) -> str:
    if key not in NUTRIENT:
        raise Http404("no such nutrient")
    return key


def target(request: HttpRequest, pk: int, key: str) -> HttpResponse:
    """Set one target by hand, with whose number it is and why."""
    client = get_object_or_404(Client, pk=pk)
    in_force = targets_in_force(client).get(_key(key))
    now = in_force.target if in_force else None
    initial = {"low": now.low, "aim": now.aim, "high": now.high} if now else {}
    form = OverrideForm(
        request.POST or None,
        key=key,
        initial={name: round(value, 1) for name, value in initial.items() if value is not None} | {"kind": "choice"},
    )
    if request.method == "POST" and form.is_valid():
        client.overrides.filter(key=key, ended=None).update(ended=timezone.now())
        TargetOverride.objects.create(client=client, key=key, by=request.user, **form.cleaned_data)
        return redirect("clients:page", pk)
    context = {"client": client, "form": form, "key": key, "in_force": in_force}
    return render(request, "clients/target.html", context)


@require_POST
def use_computed(request: HttpRequest, pk: int, key: str) -> HttpResponse:
    client = get_object_or_404(Client, pk=pk)
    client.overrides.filter(key=_key(key), ended=None).update(ended=timezone.now())
    messages.info(request, f"{NUTRIENT[key].name} is back to the computed target.")
    return redirect("clients:page", pk)
