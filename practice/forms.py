"""The sign-in form."""

from django.contrib.auth.forms import AuthenticationForm


class SignInForm(AuthenticationForm):
    error_messages = {
        **AuthenticationForm.error_messages,
        "invalid_login": "That name and password do not go together. Both are case-sensitive.",
    }

    def __init__(self, *args, **kwargs):
        super().__init__(*args, **kwargs)
        self.fields["username"].label = "Name"
