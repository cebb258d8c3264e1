"""A client who comes in a file: the file, or its text."""

from __future__ import annotations

from django import forms

from nutrition.formats.fhir.parts import MOST_SIZE


class TablesForm(forms.Form):
    """Plans or logs as they were given out."""

    file = forms.FileField(label="Plans or logs (CSV)")

    def clean_file(self) -> str:
        file = self.cleaned_data["file"]
        if file.size > MOST_SIZE:
            raise forms.ValidationError(f"The file has over {MOST_SIZE // 1_000_000} MB.")
        try:
            text: str = file.read().decode("utf-8-sig")
        except UnicodeDecodeError as error:
            raise forms.ValidationError("This is no text in UTF-8.") from error
        return text


class ComingForm(forms.Form):
    file = forms.FileField(label="A FHIR R4 file (JSON)", required=False)
    text = forms.CharField(
        label="or its text", required=False, widget=forms.Textarea(attrs={"rows": 6})
    )

    def clean(self) -> dict[str, object]:
        data = super().clean() or {}
        file = data.get("file")
        if file is not None:
            if file.size > MOST_SIZE:
                raise forms.ValidationError(f"The file has over {MOST_SIZE // 1_000_000} MB.")
            try:
                data["text"] = file.read().decode("utf-8-sig")
            except UnicodeDecodeError:
                self.add_error("file", "This is no text in UTF-8.")
                return data
        if not str(data.get("text") or "").strip():
            self.add_error("file", "Choose a file, or paste its text.")
        return data
