"""Records made of rows, whose rows can be put back as they were before each change."""

from django.db import models

from practice.versioned import Versioned

KEPT = 30


class Undoable(Versioned):
    """Keeps the state of its rows before each change, newest last. `undo_rows` names them, `undo_fields` what is kept of each."""

    history = models.JSONField(default=list, blank=True)

    undo_rows = ""
    undo_fields: tuple[str, ...] = ()

    class Meta:
        abstract = True

    def remember(self) -> None:
        """Keep the present rows, before changing them."""
        rows = getattr(self, self.undo_rows).all()
        state = [{name: getattr(row, name) for name in self.undo_fields} | {"pk": row.pk} for row in rows]
        self.history = [*self.history, state][-KEPT:]
        self.version += 1
        self.save()

    def step_back(self) -> bool:
        """Put the rows back as they were before the last change; False when there is none."""
        if not self.history:
            return False
        state = self.history.pop()
        rows = getattr(self, self.undo_rows)
        rows.exclude(pk__in=[row["pk"] for row in state]).delete()
        for row in state:
            # a state kept before a field was there leaves it as it is
            values = {name: row[name] for name in self.undo_fields if name in row}
            if self._still_there(values):
                rows.update_or_create(pk=row["pk"], defaults=values)
        self.version += 1
        self.save()
        return True

    def _still_there(self, values: dict[str, object]) -> bool:
        """Whether what a kept row points to was not deleted meanwhile."""
        meta = getattr(self, self.undo_rows).model._meta
        for name, value in values.items():
            if name.endswith("_id") and value:
                pointed = meta.get_field(name.removesuffix("_id")).related_model
                if not pointed.objects.filter(pk=value).exists():
                    return False
        return True
