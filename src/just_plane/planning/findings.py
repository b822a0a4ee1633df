"""What a plan has to say besides its numbers, gathered while it is made."""

from just_plane.contract.plan import Finding
from just_plane.core.errors import OpticsError


class Findings:
    """A list of findings; the first one said of a code and a field is kept.

    ``put_aside`` are codes of cautions and notes that the photographer has read and put aside for this shot.
    """

    def __init__(self, put_aside=()):
        self.said: list[Finding] = []
        self.put_aside = frozenset(put_aside)

    def trouble(self, code, field, message, remedy=""):
        """Something that keeps the shot from working."""
        self._say("trouble", code, field, message, remedy)

    def caution(self, code, field, message, remedy=""):
        """Something to mind."""
        self._say("caution", code, field, message, remedy)

    def note(self, code, field, message, remedy=""):
        """Something good to know."""
        self._say("note", code, field, message, remedy)

    def refused(self, error: OpticsError, field):
        """A refusal of the core, put at the field that caused it."""
        self._say("trouble", error.code, field, error.message[:1].upper() + error.message[1:], error.remedy)

    def _say(self, severity, code, field, message, remedy):
        if not any(said.code == code and said.field == field for said in self.said):
            self.said.append(
                Finding(
                    severity=severity,
                    code=code,
                    field=field,
                    message=message,
                    remedy=remedy,
                    put_aside=severity != "trouble" and code in self.put_aside,
                )
            )
