// Package questions answers: which questions are in a file, and what of a question can a
// file not hold? Its rooms are the formats.
package questions

import (
	"slices"

	"alpenglow/core/poll"
)

// Loss is something of a question that a file cannot hold.
type Loss string

// What can be lost: the whole question; that it asks how sure somebody is; names of mistakes;
// its time; a unit and how it is asked for; how many slips are forgiven; its pictures;
// its objectives; words at the ends of a scale; that it stands in for another; what is right, or
// how near is near enough; how words are set; a recording or another medium.
const (
	LossKind       Loss = "kind"
	LossSure       Loss = "sure"
	LossMistakes   Loss = "mistakes"
	LossTime       Loss = "time"
	LossUnit       Loss = "unit"
	LossSlips      Loss = "slips"
	LossPicture    Loss = "picture"
	LossObjectives Loss = "objectives"
	LossEnds       Loss = "ends"
	LossInstead    Loss = "instead"
	LossRight      Loss = "right"
	LossNear       Loss = "near"
	LossMarkup     Loss = "markup"
	LossMedia      Loss = "media"
)

// Losses lists them.
var Losses = []Loss{LossKind, LossSure, LossMistakes, LossTime, LossUnit, LossSlips, LossPicture, LossObjectives,
	LossEnds, LossInstead, LossRight, LossNear, LossMarkup, LossMedia}

// Item is a question of a file: where it stands there (a line or a number, from 1), what was
// lost, and why it could not be read, if it could not.
type Item struct {
	At     int
	Asked  poll.Question
	Lost   []Loss
	Failed error
}

// Lose notes a loss once.
func (i *Item) Lose(l Loss) {
	if !slices.Contains(i.Lost, l) {
		i.Lost = append(i.Lost, l)
	}
}

// Sheet is what a file holds: questions, and what they are called together.
type Sheet struct {
	Title string
	Items []Item
}

// Limits of a file of questions.
const (
	MaxFile  = 4 << 20 // bytes of a text or a table
	MaxItems = 500
)
