// Package id knows what an id is and how it is spelled. Every id has one
// spelling: whatever comes over the wire in another is refused when it is
// read, so that no map ever has two keys for one thing.
package id

import (
	"strings"

	"alpenglow/core/refusal"

	"github.com/google/uuid"
)

// IsV7 reports whether s is a version 7 UUID (RFC 9562) in its canonical
// small letters. Devices make these for what they add and do.
func IsV7(s string) bool {
	u, err := uuid.Parse(s)
	return err == nil && u.Version() == 7 && u.String() == s
}

// IsUUID reports whether s is a UUID of any version in its canonical small
// letters. Rows of the database have these.
func IsUUID(s string) bool {
	u, err := uuid.Parse(s)
	return err == nil && u.String() == s
}

// maxPlain is how many characters the id of something on a board may have.
const maxPlain = 64

// IsPlain reports whether s can be the id of something on a board: 1 to 64
// letters and digits of ASCII, - and _. Boards that were written by hand or
// by other programs have such ids.
func IsPlain(s string) bool {
	return s != "" && len(s) <= maxPlain && !strings.ContainsFunc(s, func(r rune) bool {
		return !(r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' || r == '-' || r == '_')
	})
}

// V7 refuses ids of which one is not a version 7 UUID.
func V7(ids ...string) error { return all(ids, IsV7) }

// UUID refuses ids of which one is not a UUID.
func UUID(ids ...string) error { return all(ids, IsUUID) }

// Plain refuses ids of which one cannot be an id on a board.
func Plain(ids ...string) error { return all(ids, IsPlain) }

func all(ids []string, is func(string) bool) error {
	for _, s := range ids {
		if !is(s) {
			return refusal.New(refusal.BadID)
		}
	}
	return nil
}
