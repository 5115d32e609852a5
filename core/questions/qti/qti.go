// Package qti reads and writes questions as packages of Question and Test Interoperability
// (1EdTech QTI), version 3.0 and 2.1. Names of elements, namespaces and templates are from memory
// of these specifications; no schema was at hand, so that what is written is checked for its
// structure alone. What is held of which kind is told in docs/formats/qti.md.
package qti

import (
	"strings"

	"alpenglow/core/poll"
	"alpenglow/core/questions"
)

// Version is a version of the standard.
type Version string

// The versions that are written; of others what is the same is read.
const (
	V3  Version = "3.0"
	V21 Version = "2.1"
)

// form is how a kind of question is an item: its interaction and what that is told of, written
// and read.
type form struct {
	kind  poll.Kind
	write func(w *item)
	read  func(r *reading, at *node) poll.Body
	// reads says whether an interaction is this kind of question.
	reads func(r *reading, at *node) bool
}

// forms lists the kinds of questions that an item can hold; the first that reads an
// interaction does.
func forms() []form {
	return []form{
		{poll.KindBlanks, writeBlanks, readBlanks, isBlanks},
		{poll.KindTruth, writeTruth, readTruth, isTruth},
		{poll.KindChoice, writeChoice, readChoice, isChoice},
		{poll.KindSeveral, writeSeveral, readSeveral, is("choiceInteraction")},
		{poll.KindNumber, writeNumber, readNumber, isNumber},
		{poll.KindShort, writeShort, readShort, is("textEntryInteraction")},
		{poll.KindOpen, writeOpen, readOpen, is("extendedTextInteraction")},
		{poll.KindScale, writeScale, readScale, isScale},
		{poll.KindRank, writeRank, readRank, isRank},
		{poll.KindOrder, writeOrder, readOrder, is("orderInteraction")},
		{poll.KindBoxes, writeBoxes, readBoxes, isBoxes},
		{poll.KindMemory, writeMemory, readMemory, isMemory},
		{poll.KindMatch, writeMatch, readMatch, is("matchInteraction")},
		{poll.KindPlaces, writePlaces, readPlaces, isPlaces},
		{poll.KindDraw, writeDraw, readDraw, isDraw},
	}
}

func is(name string) func(*reading, *node) bool {
	return func(_ *reading, at *node) bool { return at.Name == name }
}

// lost notes what an item never holds of a question, of whatever kind.
func lost(i *questions.Item) {
	q := i.Asked
	for _, l := range []struct {
		is   bool
		loss questions.Loss
	}{
		{q.Sure, questions.LossSure},
		{q.Seconds > 0, questions.LossTime},
		{len(q.Objectives) > 0, questions.LossObjectives},
		{q.InsteadOf != "", questions.LossInstead},
		{q.Sound != "" || q.Link != "", questions.LossMedia},
		{q.Shuffle && !shuffles[q.Kind], questions.LossMarkup},
	} {
		if l.is {
			i.Lose(l.loss)
		}
	}
}

// shuffles are the kinds whose interaction can be told to shuffle.
var shuffles = map[poll.Kind]bool{
	poll.KindChoice:  true,
	poll.KindSeveral: true,
	poll.KindOrder:   true,
	poll.KindRank:    true,
	poll.KindMatch:   true,
	poll.KindBoxes:   true,
	poll.KindMemory:  true,
	poll.KindTruth:   true,
}

// plain gives the name that an element or an attribute has in version 2.1, whichever it was
// written in: qti-choice-interaction is choiceInteraction, max-choices maxChoices.
func plain(name string) string {
	name = strings.TrimPrefix(name, "qti-")
	parts := strings.Split(name, "-")
	for i, p := range parts {
		if i > 0 && p != "" {
			parts[i] = strings.ToUpper(p[:1]) + p[1:]
		}
	}
	return strings.Join(parts, "")
}

// dashed is the other way around, without the prefix.
func dashed(name string) string {
	var b strings.Builder
	for _, r := range name {
		if r >= 'A' && r <= 'Z' {
			b.WriteByte('-')
			r += 'a' - 'A'
		}
		b.WriteRune(r)
	}
	return b.String()
}
