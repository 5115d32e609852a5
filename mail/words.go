package mail

import (
	"fmt"

	"alpenglow/core/settings"
	"alpenglow/store"
)

// Words are what a message says about a link: the school's name, the link, and how
// many days or hours it is good.
type Words struct {
	School string
	Link   string
}

// Invitation invites somebody of the staff.
func Invitation(to string, in settings.Language, w Words) store.Mail {
	if in == settings.German {
		return w.message(
			to,
			"Einladung zu "+w.school("Alpenglow"),
			"Guten Tag\n\nSie sind eingeladen, mit Alpenglow zu unterrichten. Mit diesem Link legen Sie Ihr Konto an:\n\n%s\n\n"+
				"Er gilt einmal und sieben Tage lang.\n",
		)
	}
	return w.message(to, "Invitation to "+w.school("Alpenglow"),
		"Hello\n\nYou are invited to teach with Alpenglow. This link makes your account:\n\n%s\n\n"+
			"It is good once, for seven days.\n")
}

// NewPassword lets somebody choose another password.
func NewPassword(to string, in settings.Language, w Words) store.Mail {
	if in == settings.German {
		return w.message(to, "Neues Passwort für "+w.school("Alpenglow"),
			"Guten Tag\n\nMit diesem Link wählen Sie ein neues Passwort:\n\n%s\n\n"+
				"Er gilt einmal und einen Tag lang. Wenn Sie ihn nicht verlangt haben, löschen Sie diese Nachricht.\n")
	}
	return w.message(to, "A new password for "+w.school("Alpenglow"),
		"Hello\n\nWith this link you choose a new password:\n\n%s\n\n"+
			"It is good once, for a day. If you have not asked for it, delete this message.\n")
}

func (w Words) school(otherwise string) string {
	if w.School != "" {
		return w.School
	}
	return otherwise
}

func (w Words) message(to, subject, body string) store.Mail {
	return store.Mail{To: to, Subject: subject, Body: fmt.Sprintf(body, w.Link)}
}
