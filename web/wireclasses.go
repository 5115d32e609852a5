package web

import "alpenglow/core/roster"

// What goes over HTTP about classes.

// ClassBook lists one's classes with their students.
type ClassBook struct {
	Classes []ClassPage `json:"classes"`
}

// ClassPage is one of them; Archived says that it is put away.
type ClassPage struct {
	ID       string         `json:"id"`
	Name     string         `json:"name"`
	Archived bool           `json:"archived,omitempty"`
	Students []ClassStudent `json:"students"`
}

// ClassStudent is a student of a class, or one who has left it.
type ClassStudent struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Left bool   `json:"left,omitempty"`
}

// NameList is a list of names as it was typed or pasted, for a class that is there or
// for a new one.
type NameList struct {
	Class string `json:"class,omitempty"`
	List  string `json:"list"`
}

// NameRows says what becomes of each line.
type NameRows struct {
	Rows []roster.Row `json:"rows"`
}

// NewClass asks for a class with a list of names.
type NewClass struct {
	Name string `json:"name"`
	List string `json:"list"`
}

// ClassMade is the class that was made.
type ClassMade struct {
	Class string `json:"class"`
}

// SetClass renames a class, or puts it away or brings it back.
type SetClass struct {
	Name     *string `json:"name,omitempty"`
	Archived *bool   `json:"archived,omitempty"`
}

// SetStudent renames a student, or lets them leave or come back.
type SetStudent struct {
	Name *string `json:"name,omitempty"`
	Left *bool   `json:"left,omitempty"`
}
