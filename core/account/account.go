// Package account answers: who may sign in, as what, and with which password?
package account

import (
	"net/mail"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"

	"github.com/trustelem/zxcvbn"
)

// Role says what somebody of the staff may do.
type Role string

// An administrator looks after the accounts, and teaches as well. A guest has begun
// without an account.
const (
	Administrator Role = "administrator"
	Teacher       Role = "teacher"
	Guest         Role = "guest"
)

// Roles lists those that are given to people of the staff.
var Roles = []Role{Administrator, Teacher}

// GuestLasts is how long a guest and what they have made stay.
const GuestLasts = 24 * time.Hour

// How long links are good for: the first account's, an invitation, a new password.
const (
	FirstLasts    = time.Hour
	InviteLasts   = 7 * 24 * time.Hour
	PasswordLasts = 24 * time.Hour
)

// Bounds of what is written about an account, in characters.
const (
	MinPassword = 12
	MaxPassword = 200
	MaxName     = 80
	MaxEmail    = 254 // RFC 5321, as its errata 1690 has it
)

// guessable is in how many guesses a password that is too common is found, and
// looked how many characters of it are looked at for that.
const (
	guessable = 1e8
	looked    = 64
)

// CheckRole reports whether there is such a role.
func CheckRole(r Role) error {
	if !slices.Contains(Roles, r) {
		return refusal.About(refusal.Malformed, "role")
	}
	return nil
}

// CheckName gives a name as it is kept.
func CheckName(name string) (string, error) { return lesson.ReadCalled(name, MaxName) }

// CheckEmail gives an address as it is kept: in small letters, nothing but the
// address (RFC 5322, addr-spec).
func CheckEmail(email string) (string, error) {
	email = strings.ToLower(strings.TrimSpace(email))
	parsed, err := mail.ParseAddress(email)
	if err != nil || parsed.Address != email || len(email) > MaxEmail || lesson.CheckTitle(email) != nil {
		return "", refusal.New(refusal.EmailBad)
	}
	return email, nil
}

// CheckPassword reports what is wrong with a new password. It asks for length, less
// beside a second factor, and for nothing that lists of common passwords, names and
// patterns have; known are words that whoever knows the person would try.
func CheckPassword(second bool, password string, known ...string) error {
	least := MinPassword
	if second {
		least = MinWithSecond
	}
	if n := utf8.RuneCountInString(password); n < least || n > MaxPassword || !utf8.ValidString(password) {
		return refusal.About(refusal.PasswordShort, "%d to %d characters", least, MaxPassword)
	}
	words := []string{"alpenglow"}
	for _, k := range known {
		k, _, _ = strings.Cut(strings.ToLower(k), "@")
		parts := strings.FieldsFunc(k, func(r rune) bool { return strings.ContainsRune(" .-_", r) })
		words = append(append(words, parts...), strings.Join(parts, ""))
	}
	start := string([]rune(password)[:min(looked, utf8.RuneCountInString(password))])
	if zxcvbn.PasswordStrength(start, words).Guesses < guessable {
		return refusal.New(refusal.PasswordCommon)
	}
	return nil
}
