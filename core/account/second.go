package account

import (
	"crypto/subtle"
	"io"
	"strings"
	"time"
	"unicode"

	"github.com/pquerna/otp"
	"github.com/pquerna/otp/hotp"
	"github.com/pquerna/otp/totp"
)

// What time codes are like (RFC 6238): six digits of HMAC-SHA-1, a new one every 30 s.
// A clock may be one step behind or ahead (section 5.2).
const (
	codeEvery = 30 // seconds
	codeSkew  = 1  // steps
)

// MinWithSecond is how many characters a password has at least beside a second factor.
const MinWithSecond = 8

// RecoveryCodes is how many are given, and RecoveryLength of how many symbols each is:
// 49.5 bits.
const (
	RecoveryCodes  = 10
	RecoveryLength = 10
)

// NewSecret gives a new secret of 160 bits (RFC 4226, section 4, requirement 6) from
// random, and the address by which an authenticator takes it (otpauth).
func NewSecret(house, email string, random io.Reader) (secret, address string, err error) {
	key, err := totp.Generate(totp.GenerateOpts{Issuer: house, AccountName: email, SecretSize: 20, Rand: random})
	if err != nil {
		return "", "", err
	}
	return key.Secret(), key.URL(), nil
}

// CheckCode reports whether a time code is right at a time, and gives the step that it
// is of. One of a step at or before the last that was taken is not: no code counts
// twice.
func CheckCode(secret, typed string, at time.Time, last int64) (step int64, ok bool) {
	code := strings.Join(strings.Fields(typed), "")
	now := at.Unix() / codeEvery
	for step := now - codeSkew; step <= now+codeSkew; step++ {
		want, err := hotp.GenerateCodeCustom(secret, uint64(step), hotp.ValidateOpts{Digits: otp.DigitsSix})
		if err == nil && step > last && subtle.ConstantTimeCompare([]byte(want), []byte(code)) == 1 {
			return step, true
		}
	}
	return 0, false
}

// RecoveryAlphabet is what recovery codes are made of.
const RecoveryAlphabet = "23456789abcdefghjkmnpqrstuvwxyz"

// Recovery makes a recovery code from random numbers; random(n) gives one in 0..n-1.
func Recovery(random func(n int) int) string {
	var code strings.Builder
	for range RecoveryLength {
		code.WriteByte(RecoveryAlphabet[random(len(RecoveryAlphabet))])
	}
	return code.String()
}

// ReadRecovery reads a recovery code as people type it, with blanks and hyphens, in any
// case; "" when it is none.
func ReadRecovery(typed string) string {
	if len(typed) > 100 {
		return ""
	}
	code := strings.Map(func(r rune) rune {
		if unicode.IsSpace(r) || r == '-' {
			return -1
		}
		return unicode.ToLower(r)
	}, typed)
	if len(code) != RecoveryLength || strings.Trim(code, RecoveryAlphabet) != "" {
		return ""
	}
	return code
}
