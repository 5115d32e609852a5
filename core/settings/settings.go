// Package settings answers: how does a teacher like to work, and what has the school
// decided for all?
package settings

import (
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/outcome"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/voices"
)

// Language is one of those that the interface is written in (ISO 639-1).
type Language string

// The languages there are.
const (
	English Language = "en"
	German  Language = "de"
)

// Languages lists them.
var Languages = []Language{English, German}

// Region is how dates and numbers are written: a language tag (BCP 47) that browsers
// know.
type Region string

// Regions lists them; "" is as the language has it.
var Regions = []Region{"", "en-GB", "en-US", "de-DE", "de-AT", "de-CH", "sv-SE"}

// Own is how a teacher likes to work.
type Own struct {
	// Language is the teacher's, ClassLanguage that of their students' screens and of
	// the front screen; "" for the same.
	Language      Language `json:"language"`
	ClassLanguage Language `json:"classLanguage"`
	Region        Region   `json:"region"`
	// How a lesson begins, unless something else is chosen: who leads, whether names
	// are chosen from the class list, whether students see whose the notes are, and
	// what they see of each other's questions.
	Pace      session.Pace    `json:"pace"`
	Listed    bool            `json:"listed"`
	Named     bool            `json:"named"`
	Questions voices.Settings `json:"questions"`
	// Words are those that wait for a yes in each lesson; nil for none.
	Words *session.HoldWords `json:"words,omitempty"`
	// Bands say from where to where it is proposed that neighbours discuss a question.
	Bands outcome.Bands `json:"bands"`
	// Sound says that a timer sounds when it is over.
	Sound bool `json:"sound"`
	// DarkFront makes the front screen dark, Calm leaves movements out.
	DarkFront bool `json:"darkFront"`
	Calm      bool `json:"calm"`
}

// Usual is how it is without any choice.
func Usual() Own {
	return Own{Language: English, Pace: session.Led, Listed: true, Named: true, Sound: true, Bands: outcome.UsualBands}
}

// Check reports what is wrong.
func (o Own) Check() error {
	switch {
	case !slices.Contains(Languages, o.Language), o.ClassLanguage != "" && !slices.Contains(Languages, o.ClassLanguage),
		!slices.Contains(Regions, o.Region), o.Pace != session.Led && o.Pace != session.Own:
		return refusal.About(refusal.Malformed, "settings")
	case o.Bands.Or() != o.Bands:
		return refusal.About(refusal.Malformed, "bands from 0 to 100, one below the other")
	case o.Words != nil:
		return o.Words.Check()
	}
	return nil
}

// ForClass is the language of a class's screens.
func (o Own) ForClass() Language {
	if o.ClassLanguage != "" {
		return o.ClassLanguage
	}
	return o.Language
}

// House is what administrators decide for all.
type House struct {
	// School is its name.
	School string `json:"school"`
	// SecondFactor asks everybody of the staff for one.
	SecondFactor bool `json:"secondFactor"`
	// Guests lets anybody begin without an account.
	Guests bool `json:"guests"`
	// KeepMonths is how long records are kept after their lesson, unless a class says
	// otherwise; 0 for always.
	KeepMonths int `json:"keepMonths"`
	// Scale are the levels by which work is judged, the lowest first.
	Scale []Level `json:"scale"`
	// Hosts are the sites whose pages may show what a link to look at shows, as scheme and host.
	Hosts []string `json:"hosts,omitempty"`
}

// Level is one of the levels of a scale.
type Level struct {
	Name string      `json:"name"`
	Tint lesson.Tint `json:"tint"`
	Sign Sign        `json:"sign"`
	// Points are what it counts; nil where levels are not counted.
	Points *int `json:"points,omitempty"`
}

// Sign stands beside the colour of a level, for those who do not tell colours apart.
type Sign string

// Signs lists them, from little to much.
var Signs = []Sign{"seed", "sprout", "leaf", "flower", "tree", "peak"}

// Bounds of what a house may set.
const (
	MinLevels = 2
	MaxLevels = 6
	MaxName   = 30  // characters of a level's name
	MaxSchool = 80  // characters of the school's name
	MaxPoints = 100 // of one level
	MaxMonths = 120
)

// Usually is what holds for a house without any choice.
func Usually() House {
	return House{KeepMonths: 24, Scale: []Level{
		{Name: "Beginning", Tint: "apricot", Sign: "seed"}, {Name: "On the way", Tint: "lilac", Sign: "sprout"},
		{Name: "Secure", Tint: "glacier", Sign: "leaf"}, {Name: "Going further", Tint: "moss", Sign: "tree"},
	}}
}

// Check gives a house's settings as they are kept, or what is wrong.
func (h House) Check() (House, error) {
	if h.KeepMonths < 0 || h.KeepMonths > MaxMonths {
		return h, refusal.About(refusal.Malformed, "0 to %d months", MaxMonths)
	}
	hosts, err := readHosts(h.Hosts)
	if err != nil {
		return h, err
	}
	h.Hosts = hosts
	if h.School != "" {
		name, err := lesson.ReadCalled(h.School, MaxSchool)
		if err != nil {
			return h, err
		}
		h.School = name
	}
	if len(h.Scale) < MinLevels || len(h.Scale) > MaxLevels {
		return h, refusal.About(refusal.Malformed, "%d to %d levels", MinLevels, MaxLevels)
	}
	h.Scale = slices.Clone(h.Scale)
	names, signs := map[string]bool{}, map[Sign]bool{}
	for i, l := range h.Scale {
		name, err := lesson.ReadCalled(l.Name, MaxName)
		if err != nil {
			return h, err
		}
		switch {
		case names[name]:
			return h, refusal.New(refusal.LevelTwice)
		case signs[l.Sign] || !slices.Contains(Signs, l.Sign) || !slices.Contains(lesson.Tints, l.Tint),
			l.Points != nil && (*l.Points < 0 || *l.Points > MaxPoints),
			(l.Points == nil) != (h.Scale[0].Points == nil):
			return h, refusal.About(refusal.Malformed, "levels")
		}
		names[name], signs[l.Sign] = true, true
		h.Scale[i].Name = name
	}
	return h, nil
}
