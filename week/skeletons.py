"""The skeleton of a client: their own, or the one that their school brings."""

from __future__ import annotations

from clients.models import Client
from nutrition.planning.skeleton import (
    BadSkeleton,
    Skeleton,
    as_data,
    from_data,
    skeleton_of_school,
)
from week.models import ClientSkeleton


def skeleton_of(client: Client) -> Skeleton:
    """How the client's week usually is; what cannot be read any more gives way to the school's."""
    row = ClientSkeleton.objects.filter(client=client).first()
    if row is not None:
        try:
            return from_data(row.data)
        except BadSkeleton:
            pass
    return usual_for(client)


def usual_for(client: Client) -> Skeleton:
    """The skeleton that the client's school brings, for their pattern of meals; a practice's own
    school brings its base's."""
    base, _colon, _pk = client.school.partition(":")
    return skeleton_of_school(base, client.meals)


def kept_version(client: Client) -> int:
    """The version of the client's own skeleton; 0 where there is none yet."""
    row = ClientSkeleton.objects.filter(client=client).first()
    return row.version if row else 0


def keep(client: Client, skeleton: Skeleton, version: int) -> ClientSkeleton:
    """Keep a skeleton over the version that was opened. Raises StaleSave."""
    row, made = ClientSkeleton.objects.get_or_create(
        client=client, defaults={"practice": client.practice, "data": as_data(skeleton)}
    )
    if made:
        return row
    row.data = as_data(skeleton)
    row.save_over(version)
    return row
