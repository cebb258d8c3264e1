"""A clinician's orders, and what a practitioner wished for, as the tests of this room set them."""

from nutrition.targets.orders import Order


def order(key, low=None, high=None, aim=None, kind="order"):
    return Order(
        key=key,
        low=low,
        aim=aim,
        high=high,
        kind=kind,
        reason="letter",
        by="Dr. N",
        license="1",
    )
