"""Who may do what with people: an owner alone, but for one's own sign-in."""

import rules

from practice.access import ANYBODY, ONESELF, Route, allow
from practice.rules import owns

rules.add_perm("people.own", owns)

allow(
    "",
    Route("sign-in sign-in-code sign-in-again forgot-password new-password join", ANYBODY, ANYBODY),
    Route("sign-out you password second-step second-step-off end-session", ONESELF, ONESELF),
    Route("people invite withdraw person sign-in-rules", "people.own", "people.own"),
)
allow(
    "otp_webauthn",
    Route("credential-authentication-begin credential-authentication-complete", ANYBODY, ANYBODY),
    Route("credential-registration-begin credential-registration-complete", ONESELF, ONESELF),
    Route("js-i18n-catalog", ANYBODY, None),
)
