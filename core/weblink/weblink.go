// Package weblink answers: is this an address of the web that a class may be led to?
package weblink

import (
	"net/url"

	"alpenglow/core/prose"
)

// Max is how many bytes an address may have.
const Max = 2000

// Is reports whether a text is an address of the web, without a name or password in it, so that
// what is shown of it is where it leads.
func Is(text string) bool {
	u, err := url.Parse(text)
	return err == nil && len(text) <= Max && (u.Scheme == "https" || u.Scheme == "http") && u.Hostname() != "" &&
		u.User == nil && prose.Check(text, Max) == nil
}
