"""Client list, a client's working page, and what is changed there: targets, meals, weigh-ins, cautions put aside."""

from django.contrib import messages
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.utils.http import url_has_allowed_host_and_scheme
from django.views.decorators.http import require_POST

from clients.attention import reasons, weekly_pace
from clients.cautions import ABOUT_LENGTH, of_the_client, stops_of
from clients.context import SESSION_KEY
from clients.forms import ClientForm, OverrideForm, RetargetForm, SharesForm, SupplementFormSet, WeighInForm
from clients.history import history_of
from clients.in_force import plan_of
from clients.models import CautionDismissal, Client, Intake, TargetOverride, WeighIn
from clients.versions import make_version
from nutrition.cautions import rules
from nutrition.meals import MEAL_NAMES
from nutrition.nutrients import NUTRIENT
from practice.versioned import StaleSave

MOST_WATCHED_BY_HAND = 10


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
                "stops": stops_of(client),
            }
        )
    rows.sort(key=lambda row: (-row["stops"], -len(row["reasons"]), row["client"].name))
    return render(request, "clients/list.html", {"rows": rows, "intakes": Intake.objects.filter(client=None)})


def page(request: HttpRequest, pk: int) -> HttpResponse:
    return _page(request, get_object_or_404(Client, pk=pk))


def _page(request: HttpRequest, client: Client, status: int = 200, **forms: object) -> HttpResponse:
    request.session[SESSION_KEY] = client.pk
    today = timezone.localdate()
    plan, pace = plan_of(client), weekly_pace(client)
    told = of_the_client(plan, pace)
    context = {
        "client": client,
        "plan": plan,
        "day": plan.day,
        "rows": plan.watched,
        "others": plan.others,
        "told": told,
        "coming": client.target_versions.filter(takes_effect__gt=today),
        "weigh_ins": list(client.weigh_ins.order_by("-date")[:8]),
        "pace": pace,
        "reasons": reasons(client, today),
        "days": client.days.all()[:7],
        "bowls": client.bowl_set.all(),
        "weigh_in_form": WeighInForm(initial={"date": today}),
        "shares_form": SharesForm(client=client, names=MEAL_NAMES),
        "retarget_form": RetargetForm(initial={"takes_effect": today}),
        "watch_choices": [NUTRIENT[key] for key in plan.rows],
        "history": history_of(client),
    } | forms
    return render(request, "clients/page.html", context, status=status)


def edit(request: HttpRequest, pk: int) -> HttpResponse:
    client = get_object_or_404(Client, pk=pk)
    form = ClientForm(request.POST or None, instance=client)
    supplements = SupplementFormSet(request.POST or None, instance=client)
    stale = None
    if request.method == "POST" and form.is_valid() and supplements.is_valid():
        try:
            with transaction.atomic():
                form.instance.save_over(form.cleaned_data["version"] or 0)
                supplements.save()
                changed = ", ".join(str(form[name].label or name).lower() for name in form.changed_data if name in form.fields)
                made = make_version(client, request.user, f"Changed: {changed}", form.cleaned_data["takes_effect"])
            if made:
                messages.success(request, f"New targets from {made.takes_effect:%b %-d} on.")
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
    context = {"form": form, "supplements": supplements, "client": client, "stale": stale, "changed": changed}
    return render(request, "clients/form.html", context, status=409 if stale else 200)


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
    in_force = plan_of(client).rows.get(_key(key))
    now = in_force.target if in_force else None
    initial = {"low": now.low, "aim": now.aim, "high": now.high} if now else {}
    form = OverrideForm(
        request.POST or None,
        key=key,
        initial={name: round(value, 1) for name, value in initial.items() if value is not None} | {"kind": "choice"},
    )
    if request.method == "POST" and form.is_valid():
        data = dict(form.cleaned_data)
        takes_effect = data.pop("takes_effect")
        with transaction.atomic():
            client.overrides.filter(key=key, ended=None).update(ended=timezone.now())
            row = TargetOverride.objects.create(client=client, key=key, by=request.user, **data)
            make_version(client, request.user, f"{NUTRIENT[key].name} set by hand, {row.get_kind_display()}: {row.reason}", takes_effect)
        return redirect("clients:page", pk)
    context = {"client": client, "form": form, "key": key, "in_force": in_force}
    return render(request, "clients/target.html", context)


@require_POST
def use_computed(request: HttpRequest, pk: int, key: str) -> HttpResponse:
    client = get_object_or_404(Client, pk=pk)
    with transaction.atomic():
        client.overrides.filter(key=_key(key), ended=None).update(ended=timezone.now())
        make_version(client, request.user, f"{NUTRIENT[key].name} back to the computed target")
    messages.info(request, f"{NUTRIENT[key].name} is back to the computed target.")
    return redirect("clients:page", pk)


@require_POST
def retarget(request: HttpRequest, pk: int) -> HttpResponse:
    """Targets made anew, from the weight and the school as they are now."""
    client = get_object_or_404(Client, pk=pk)
    form = RetargetForm(request.POST)
    if not form.is_valid():
        return _page(request, client, 400, retarget_form=form)
    made = make_version(client, request.user, form.cleaned_data["why"], form.cleaned_data["takes_effect"])
    messages.info(request, f"New targets from {made.takes_effect:%b %-d} on." if made else "They come out the same: nothing was changed.")
    return redirect("clients:page", pk)


@require_POST
def shares(request: HttpRequest, pk: int) -> HttpResponse:
    """What share of the day each meal is."""
    client = get_object_or_404(Client, pk=pk)
    form = SharesForm(request.POST, client=client, names=MEAL_NAMES)
    if not form.is_valid():
        return _page(request, client, 400, shares_form=form)
    client.meal_shares = {} if "usual" in request.POST else form.shares
    client.save()
    make_version(client, request.user, "Shares of the meals")
    return redirect("clients:page", pk)


@require_POST
def watched(request: HttpRequest, pk: int) -> HttpResponse:
    """Which targets stand in the strip for this client; none chosen means the usual ones."""
    client = get_object_or_404(Client, pk=pk)
    chosen = [] if "usual" in request.POST else [key for key in request.POST.getlist("watched") if key in NUTRIENT]
    if len(chosen) > MOST_WATCHED_BY_HAND:
        messages.error(
            request, f"The strip holds {MOST_WATCHED_BY_HAND} targets at most; you chose {len(chosen)}. All stay there on request."
        )
        return redirect("clients:page", pk)
    client.watched = chosen
    client.save()
    return redirect("clients:page", pk)


def _back(request: HttpRequest, pk: int) -> HttpResponse:
    address = request.POST.get("next", "")
    if url_has_allowed_host_and_scheme(address, allowed_hosts={request.get_host()}, require_https=request.is_secure()):
        return redirect(address)
    return redirect("clients:page", pk)


@require_POST
def dismiss(request: HttpRequest, pk: int) -> HttpResponse:
    """Put one caution aside for this client, with who and why."""
    client = get_object_or_404(Client, pk=pk)
    code, why = request.POST.get("code", ""), request.POST.get("why", "").strip()
    if code not in {rule.code for rule in rules()}:
        raise Http404("no such caution")
    if not why:
        messages.error(request, "Say why the caution is put aside: the reason stays in the record.")
    else:
        CautionDismissal.objects.create(
            client=client, code=code, about=request.POST.get("about", "")[:ABOUT_LENGTH], why=why[:300], by=request.user
        )
    return _back(request, pk)


@require_POST
def bring_back(request: HttpRequest, pk: int, dismissal: int) -> HttpResponse:
    client = get_object_or_404(Client, pk=pk)
    client.dismissals.filter(pk=dismissal, ended=None).update(ended=timezone.now())
    return _back(request, pk)
