package poll

// Sureness is whether a student is sure of an answer.
type Sureness string

// Sure, not sure, or not asked.
const (
	Sure     Sureness = "sure"
	Unsure   Sureness = "unsure"
	NotAsked Sureness = ""
)

// Surenesses lists them.
var Surenesses = []Sureness{Sure, Unsure, NotAsked}
