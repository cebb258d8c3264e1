"""The clients area."""

from django.apps import AppConfig


class ClientsConfig(AppConfig):
    name = "clients"

    def ready(self) -> None:
        from django.db.models.signals import post_delete, post_save

        from clients.models import Client
        from clients.plan.looks import after_saving
        from practice.removal import put_away_or_back
        from practice.uses import says_uses, some
        from schools.models import OwnSchool

        def of_the_school(own: OwnSchool) -> str:
            return some(
                [client.name for client in Client.objects.filter(school=own.code)], "client"
            )

        def of_the_client(client: Client) -> str:
            days, bowls, weighed = (
                client.days.count(),
                client.bowl_set.count(),
                client.weigh_ins.count(),
            )
            counts = ((days, "planned day"), (bowls, "bowl"), (weighed, "weigh-in"))
            return ", ".join(
                f"{count} {one}{'s' if count > 1 else ''}" for count, one in counts if count
            )

        for name in (
            *("Client", "ClientSupplement", "WeighIn", "TargetOverride", "TargetVersion"),
            "CautionDismissal",
            "BloodValue",
        ):
            model = self.get_model(name)
            post_save.connect(after_saving, sender=model)
            post_delete.connect(after_saving, sender=model)
            put_away_or_back.connect(after_saving, sender=model)
        says_uses(OwnSchool, of_the_school)
        says_uses(Client, of_the_client)
