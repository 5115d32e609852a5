package lesson

import (
	"strings"

	"alpenglow/core/prose"
	"alpenglow/core/refusal"
	"alpenglow/core/weblink"
)

// KindLink is a card that leads to a page on the web.
const KindLink Kind = "link"

// Link leads to a page on the web.
type Link struct {
	URL   string `json:"url"`
	Title string `json:"title,omitempty"`
}

// check lets through addresses of the web alone, without a name or password in
// them, so that what is shown of it is where it leads.
func (l *Link) check() error {
	if !weblink.Is(l.URL) {
		return refusal.New(refusal.BadLink)
	}
	return prose.Check(l.Title, MaxNote)
}

func (l *Link) with(p, before *Properties) Body {
	c := *l
	take(&c.Title, &p.Text, &before.Text)
	take(&c.URL, &p.URL, &before.URL)
	return Body{Kind: KindLink, Link: &c}
}

func (l *Link) words() string { return strings.TrimSpace(l.Title + " " + l.URL) }
func (l *Link) says() string  { return l.words() }
func (l *Link) manner() manner {
	return manner{inClass: true, piece: true, least: minSide}
}
