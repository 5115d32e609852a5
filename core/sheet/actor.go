package sheet

import (
	"strconv"
	"strings"

	"alpenglow/core/lesson"
)

// ClassOwner owns the sheet that the whole class shares. Other owners are a
// group (see GroupOwner) or the id of the participant whose sheet it is.
const ClassOwner = "class"

const groupOwner = "group-"

// GroupOwner is the owner of a group's sheet; groups are numbered from 1. It is
// empty for 0, no group.
func GroupOwner(group int) string {
	if group == 0 {
		return ""
	}
	return groupOwner + strconv.Itoa(group)
}

// GroupNumber gives the number of the group that an owner is, or 0.
func GroupNumber(owner string) int {
	n, err := strconv.Atoi(strings.TrimPrefix(owner, groupOwner))
	if err != nil || GroupOwner(n) != owner {
		return 0
	}
	return n
}

// Actor is who does something: staff, or the participant with the ID in the
// group with that number, if it is not 0.
type Actor struct {
	Staff bool
	ID    string
	Group int
}

// Owner gives whose sheet a student works on where a frame is shared like
// this; empty for a student without a group where groups share it.
func (a Actor) Owner(shared lesson.Arrangement) string {
	switch shared {
	case lesson.WholeClass:
		return ClassOwner
	case lesson.Groups:
		return GroupOwner(a.Group)
	}
	return a.ID
}

// Shares says whether the sheet of an owner is the actor's to work on: the
// class's, their group's or their own; staff shares all.
func (a Actor) Shares(owner string) bool {
	return a.Staff || owner == ClassOwner || owner != "" && (owner == a.ID || owner == GroupOwner(a.Group))
}

// author is how an actor is written on marks and changes.
func (a Actor) author() string {
	if a.Staff {
		return lesson.Staff
	}
	return a.ID
}
