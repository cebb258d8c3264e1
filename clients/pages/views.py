"""Client list, a client's working page, and what is changed there: targets, meals, weigh-ins,
cautions put aside."""

# Whole: the pages of the client record, each a few lines over what the plan says.

from django.contrib import messages
from django.db import transaction
from django.http import Http404, HttpResponse, HttpResponseRedirect
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import CautionDismissal, Client, Intake, TargetOverride
from clients.pages.context import PageRequest, settle_on
from clients.pages.intake import is_blank
from clients.pages.listing import CLIENT_LISTS, next_steps, rows_of
from clients.person.differences import DECIDED_BY_HAND, decided, differences, undecided
from clients.person.forms import (
    ClientForm,
    OverrideForm,
    RetargetForm,
    SharesForm,
    SupplementFormSet,
    WeighInForm,
)
from clients.person.history import history_of
from clients.person.weight_chart import small_chart
from clients.places import ORDERED_BY
from clients.plan.attention import judged_now, reasons, weekly_pace
from clients.plan.cautions import ABOUT_LENGTH, of_the_client
from clients.plan.in_force import plan_of
from clients.plan.looks import bring_up_to_date, changed, seen_now
from clients.plan.strip import MOST_SHOWN
from clients.plan.versions import make_version
from nutrition.composition.nutrients import NUTRIENT
from nutrition.follow_up.stall import span
from nutrition.safety.caution_rules import rules
from nutrition.targets.meals import MEAL_NAMES
from practice.forms import with_version
from practice.removal import offered_back
from practice.uses import uses_of
from practice.versioned import StaleSave, version_in
from webkit.listing import listed
from webkit.request_values import next_in

MOST_WATCHED_BY_HAND = MOST_SHOWN
# So many of the latest weigh-ins are listed.
MOST_LISTED = 8
WHY_LENGTH = 300
MOST_ARCHIVED = 100
# A caution is about no more foods than a day has.
MOST_NAMES = 200


def client_list(request: PageRequest) -> HttpResponse:
    today = timezone.localdate()
    bring_up_to_date(Client.objects.all(), today)
    asked = listed(request, Client.objects.select_related("look"), CLIENT_LISTS)
    context = {
        "list": asked,
        "rows": asked.page,
        "shown": rows_of(list(asked.page.object_list), today),
        "intakes": [row for row in Intake.objects.filter(client=None) if not is_blank(row)],
        "removed": Client.with_removed.exclude(removed=None).select_related("removed_by")[
            :MOST_ARCHIVED
        ],
        "nobody": not Client.objects.exists(),
        "removed_visits": offered_back(Intake.with_removed.filter(client=None)).select_related(
            "removed_by"
        ),
    }
    return render(request, "clients/list.html", context)


def opened(request: PageRequest, pk: int) -> tuple[Client, HttpResponse | None]:
    """The client, and where to go instead if another one, or none, stands in the address."""
    client: Client = get_object_or_404(Client.with_removed, pk=pk)
    return client, settle_on(request, client, named=True)


def page(request: PageRequest, pk: int) -> HttpResponse:
    client, elsewhere = opened(request, pk)
    return elsewhere or _page(request, client)


def _page(request: PageRequest, client: Client, status: int = 200, **forms: object) -> HttpResponse:
    today = timezone.localdate()
    plan, judged = plan_of(client), judged_now(client, today)
    pace, needs = weekly_pace(judged), reasons(client, today, judged)
    weighed = client.newest_weigh_ins(MOST_LISTED)
    told = of_the_client(plan, client, pace.kg_per_week if pace else None)
    if request.method == "GET":
        seen_now(client, told.standing)
    context = {
        "client": client,
        "plan": plan,
        "day": plan.day,
        "rows": plan.watched[:MOST_SHOWN],
        "others": [*plan.watched[MOST_SHOWN:], *plan.others],
        "chart": small_chart(client, judged.trend),
        "next_steps": next_steps(client, needs),
        "told": told,
        "coming": client.target_versions.filter(takes_effect__gt=today),
        "weigh_ins": weighed,
        "removed_weigh_ins": offered_back(client.weigh_ins(manager="with_removed")).select_related(
            "removed_by"
        ),
        "pace": pace,
        "pace_words": span(pace) if pace else "",
        "uses": uses_of(client),
        "weigh_in_form": WeighInForm(initial={"date": today}, client=client),
        "shares_form": SharesForm(client=client, names=MEAL_NAMES),
        "retarget_form": RetargetForm(initial={"takes_effect": today}),
        "watch_choices": [NUTRIENT[key] for key in plan.rows],
        "history": history_of(client),
    } | forms
    return render(request, "clients/page.html", context, status=status)


def edit(request: PageRequest, pk: int) -> HttpResponse:
    client, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    form = ClientForm(request.POST or None, instance=client)
    supplements = SupplementFormSet(request.POST or None, client=client)  # type: ignore[call-arg]
    differs, status, asks = [], 200, []
    if request.method == "POST" and form.is_valid() and supplements.is_valid():
        stored = Client.with_removed.get(pk=pk)
        differs = differences(stored, form, supplements)  # type: ignore[arg-type]
        asks = undecided(request.POST, differs)
        status = 409
        if not asks:
            try:
                return _save_client(request, form, supplements, stored)
            except StaleSave as error:
                client = error.current
                differs = differences(client, form, supplements)  # type: ignore[arg-type]
                form.data = with_version(form.data, client.version)
    context = {
        "form": form,
        "supplements": supplements,
        "client": client,
        "differs": differs if status == 409 else [],
        "asks": asks,
    }
    context["decisions"] = {
        name: request.POST.get(f"decide-{name}", "") for name in DECIDED_BY_HAND
    }
    return render(request, "clients/form.html", context, status=status)


def _save_client(
    request: PageRequest, form: ClientForm, supplements, stored: Client
) -> HttpResponse:
    """Store the form, what is decided for the other side left as it is stored. Raises StaleSave."""
    client, keep_theirs = form.instance, decided(request.POST, "theirs")
    for name in keep_theirs:
        if name != "supplements":
            setattr(client, name, getattr(stored, name))
    weighed = client.weight_kg != stored.weight_kg
    with transaction.atomic():
        client.save_over(form.cleaned_data["version"] or 0)
        if "supplements" not in keep_theirs:
            supplements.save(client)
        today, was = timezone.localdate(), None
        if weighed and not client.weigh_ins.filter(date=today, kg=client.weight_kg).exists():
            was = client.weigh(today, client.weight_kg, request.user)
        changed = ", ".join(
            str(form[name].label or name).lower()
            for name in form.changed_data
            if name in form.fields
        )
        made = make_version(
            client, request.user, f"Changed: {changed}", form.cleaned_data["takes_effect"]
        )
    if weighed:
        instead = f", in place of {was.kg:g} kg, which can be brought back" if was else ""
        messages.info(
            request, f"{client.weight_kg:g} kg is recorded as the weigh-in of today{instead}."
        )
    if made:
        messages.success(request, f"New targets from {made.takes_effect:%b %-d} on.")
    return redirect("clients:page", client.pk)


@require_POST
def remove(request: PageRequest, pk: int) -> HttpResponse:
    """Archive a client: everything that is theirs stays, and they can be brought back."""
    client, _elsewhere = opened(request, pk)
    if "back" in request.POST:
        client.bring_back()
        messages.success(request, f"{client.name} is back.")
        return redirect("clients:page", pk)
    client.remove(request.user)
    messages.info(
        request,
        f"{client.name} is archived, with "
        f"{', '.join(uses_of(client)) or 'nothing that depends on it'}.",
    )
    return redirect(reverse("clients:list"))


@require_POST
def weigh_in(request: PageRequest, pk: int) -> HttpResponse:
    client, _elsewhere = opened(request, pk)
    form = WeighInForm(request.POST, client=client)
    if form.is_valid():
        kg = form.cleaned_data["kg"]
        was = client.weigh(form.cleaned_data["date"], kg, request.user, **form.more)
        instead = f" in place of {was.kg:g} kg" if was else ""
        messages.success(request, f"{kg:g} kg recorded{instead}.")
        return _back(request, pk)
    send_to = reverse("clients:weigh-in", args=[pk])
    context = {"client": client, "form": form, "send_to": send_to} | _leads_back(request, pk)
    return render(request, "clients/weigh_in.html", context, status=400)


def _leads_back(request: PageRequest, pk: int) -> dict[str, object]:
    """Where a small form was sent from, for the page that asks about it."""
    return {"next": request.POST.get("next", "")[:500], "back": reverse("clients:page", args=[pk])}


def correct_weigh_in(request: PageRequest, pk: int, weighed: int) -> HttpResponse:
    """Another date or weight for one weigh-in."""
    client, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    row = get_object_or_404(client.weigh_ins, pk=weighed)
    form = WeighInForm(request.POST or None, instance=row, client=client)
    if request.method == "POST" and form.is_valid():
        with transaction.atomic():
            if form.there:
                form.there.remove(request.user)
            form.save()
        messages.success(request, f"Corrected: {row.kg:g} kg on {row.date:%b %-d}.")
        return _back(request, pk)
    send_to = reverse("clients:correct-weigh-in", args=[pk, row.pk])
    context = {"client": client, "form": form, "weighed": row, "send_to": send_to}
    context |= _leads_back(request, pk)
    return render(
        request, "clients/weigh_in.html", context, status=400 if request.method == "POST" else 200
    )


@require_POST
def remove_weigh_in(request: PageRequest, pk: int, weighed: int) -> HttpResponse:
    client, _elsewhere = opened(request, pk)
    row = get_object_or_404(client.weigh_ins(manager="with_removed"), pk=weighed)
    if "back" in request.POST:
        with transaction.atomic():
            for other in client.weigh_ins.filter(date=row.date).exclude(pk=row.pk):
                other.remove(request.user)
            row.bring_back()
        messages.success(request, f"{row.kg:g} kg of {row.date:%b %-d} counts again.")
    else:
        row.remove(request.user)
        messages.info(
            request,
            f"{row.kg:g} kg of {row.date:%b %-d} no longer counts. It can be brought back below "
            f"the weigh-ins.",
        )
    return redirect("clients:page", pk)


def _key(key: str) -> str:
    if key not in NUTRIENT:
        raise Http404("no such nutrient")
    return key


def _answered(client: Client) -> dict[str, str]:
    """Whose order it may be, as a later stage knows: who answered last, with their license."""
    return ORDERED_BY.first(client) or {}


def target(request: PageRequest, pk: int, key: str) -> HttpResponse:
    """Set one target by hand, with whose number it is and why."""
    client, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    in_force = plan_of(client).rows.get(_key(key))
    now = in_force.target if in_force else None
    initial = {"low": now.low, "aim": now.aim, "high": now.high} if now else {}
    standing = client.overrides.filter(key=key, ended=None).select_related("by").first()
    form = OverrideForm(
        request.POST or None,
        key=key,
        standing=standing,
        initial={name: round(value, 1) for name, value in initial.items() if value is not None}
        | {"kind": "choice"}
        | _answered(client),
    )
    if request.method == "POST" and form.is_valid():
        data = dict(form.cleaned_data)
        data.pop("confirm", None)
        takes_effect = data.pop("takes_effect")
        with transaction.atomic():
            client.overrides.filter(key=key, ended=None).update(ended=timezone.now())
            row = TargetOverride.objects.create(client=client, key=key, by=request.user, **data)
            whose = f" ({row.given_by}, {row.license})" if row.kind == "order" else ""
            why = f"{NUTRIENT[key].name} set by hand, {row.get_kind_display()}{whose}: {row.reason}"
            make_version(client, request.user, why, takes_effect)
        return redirect("clients:page", pk)
    context = {
        "client": client,
        "form": form,
        "key": key,
        "in_force": in_force,
        "standing": standing,
    }
    return render(request, "clients/target.html", context)


@require_POST
def use_computed(request: PageRequest, pk: int, key: str) -> HttpResponse:
    client, _elsewhere = opened(request, pk)
    standing = client.overrides.filter(key=_key(key), ended=None).select_related("by").first()
    if standing and standing.kind == "order" and "confirm" not in request.POST:
        context = {"client": client, "key": key, "standing": standing}
        return render(request, "clients/end_order.html", context, status=409)
    with transaction.atomic():
        client.overrides.filter(key=key, ended=None).update(ended=timezone.now())
        make_version(client, request.user, f"{NUTRIENT[key].name} back to the computed target")
    changed(pk)
    messages.info(request, f"{NUTRIENT[key].name} is back to the computed target.")
    return redirect("clients:page", pk)


@require_POST
def retarget(request: PageRequest, pk: int) -> HttpResponse:
    """Targets made anew, from the weight and the school as they are now."""
    client, _elsewhere = opened(request, pk)
    form = RetargetForm(request.POST)
    if not form.is_valid():
        return _page(request, client, 400, retarget_form=form)
    made = make_version(
        client, request.user, form.cleaned_data["why"], form.cleaned_data["takes_effect"]
    )
    messages.info(
        request,
        f"New targets from {made.takes_effect:%b %-d} on."
        if made
        else "They come out the same: nothing was changed.",
    )
    return redirect("clients:page", pk)


@require_POST
def shares(request: PageRequest, pk: int) -> HttpResponse:
    """What share of the day each meal is."""
    client, _elsewhere = opened(request, pk)
    form = SharesForm(request.POST, client=client, names=MEAL_NAMES)
    usual = "usual" in request.POST
    if not usual and not form.is_valid():
        return _page(request, client, 400, shares_form=form)
    client.meal_shares = {} if usual else form.shares
    return _saved_over(request, client, "Shares of the meals")


def _saved_over(request: PageRequest, client: Client, why: str = "") -> HttpResponse:
    """Store a small change of the client, unless somebody changed the client meanwhile."""
    asked = version_in(request.POST.get("version"))
    try:
        with transaction.atomic():
            client.save_over(client.version if asked is None else asked)
            if why:
                make_version(client, request.user, why)
    except StaleSave:
        messages.error(
            request,
            "The client was changed after you opened the page. Yours was not saved; what is stored "
            "is shown: set it again.",
        )
    return redirect("clients:page", client.pk)


@require_POST
def hold(request: PageRequest, pk: int) -> HttpResponse:
    """The weight is held, where no loss is planned: the goal is changed, and the targets with
    it."""
    client, _elsewhere = opened(request, pk)
    client.goal = "hold"
    return _saved_over(request, client, "Hold the weight: no loss is planned")


@require_POST
def watched(request: PageRequest, pk: int) -> HttpResponse:
    """Which targets stand in the strip for this client; none chosen means the usual ones."""
    client, _elsewhere = opened(request, pk)
    chosen = (
        []
        if "usual" in request.POST
        else [key for key in request.POST.getlist("watched") if key in NUTRIENT]
    )
    if len(chosen) > MOST_WATCHED_BY_HAND:
        messages.error(
            request,
            f"The strip holds {MOST_WATCHED_BY_HAND} targets at most; you chose {len(chosen)}. All "
            f"stay there on request.",
        )
        return redirect("clients:page", pk)
    client.watched = chosen
    return _saved_over(request, client)


def _back(request: PageRequest, pk: int) -> HttpResponse:
    return HttpResponseRedirect(next_in(request, reverse("clients:page", args=[pk])))


@require_POST
def dismiss(request: PageRequest, pk: int) -> HttpResponse:
    """Put one caution aside for this client, with who and why."""
    client, _elsewhere = opened(request, pk)
    code, why = request.POST.get("code", ""), request.POST.get("why", "").strip()
    if code not in {rule.code for rule in rules()}:
        raise Http404("no such caution")
    if not why:
        messages.error(request, "Say why the caution is put aside: the reason stays in the record.")
    elif len(why) > WHY_LENGTH:
        messages.error(
            request,
            f"The reason is over {WHY_LENGTH} characters, and the caution stands. Yours was: "
            f"{why[:600]}",
        )
    else:
        CautionDismissal.objects.create(
            client=client,
            code=code,
            about=request.POST.get("about", "")[:ABOUT_LENGTH],
            names=request.POST.getlist("names")[:MOST_NAMES],
            why=why,
            by=request.user,
        )
    return _back(request, pk)


@require_POST
def bring_back(request: PageRequest, pk: int, dismissal: int) -> HttpResponse:
    client, _elsewhere = opened(request, pk)
    client.dismissals.filter(pk=dismissal, ended=None).update(ended=timezone.now())
    changed(pk)
    return _back(request, pk)
