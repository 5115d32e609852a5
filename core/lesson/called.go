package lesson

import (
	"strings"
	"unicode/utf8"

	"alpenglow/core/refusal"
)

// ReadCalled gives what somebody or something is called as it is kept: in one line,
// without blanks around it, and at most so many characters.
func ReadCalled(name string, most int) (string, error) {
	name = strings.Join(strings.Fields(name), " ")
	if name == "" {
		return "", refusal.New(refusal.NameEmpty)
	}
	if utf8.RuneCountInString(name) > most {
		return "", refusal.About(refusal.NameTooLong, "at most %d characters", most)
	}
	if CheckTitle(name) != nil {
		return "", refusal.New(refusal.NameControl)
	}
	return name, nil
}
