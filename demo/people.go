package demo

import (
	"math/rand/v2"

	"alpenglow/core/account"
	"alpenglow/standin"
)

// Email and Password are of the teacher who looks after the house; all have the same
// password.
const (
	Email    = "ines.aldana@tern-harbour.example"
	Password = "moon-and-tides"
)

// hashed is the password's hash. It is known to everybody who can read, so that its hash need not be dear.
const hashed = "$argon2id$v=19$m=64,t=1,p=1$jMoRQNUmcbfEIzFSJr80tQ$5EY7nysvfSC3aVjvfB/yQGz5BkkyBOvg8K1o5fJf9Wc"

// person is somebody of the staff.
type person struct {
	email, name string
	role        account.Role
}

// staff are the teachers of Tern Harbour School.
var staff = []person{
	{Email, "Ines Aldana", account.Administrator},
	{"emil.sorensen@tern-harbour.example", "Emil Sorensen", account.Teacher},
	{"oluchi.bright@tern-harbour.example", "Oluchi Bright", account.Teacher},
}

// class is a class with those who teach it, by their places in staff.
type class struct {
	name     string
	teachers []int
	students []string
}

// juniper is the class list of 8 Juniper at Tern Harbour School.
var juniper = []string{
	"Amara", "Bilal", "Chiara", "Dmitri", "Elif", "Farid", "Greta", "Hana", "Ibrahim", "Juno", "Kenji", "Liv", "Mateo",
	"Noor", "Oskar", "Priya", "Quentin", "Rania", "Samir", "Tomás", "Uma", "Vera", "Wanjiru", "Xiomara", "Yusuf",
	"Zofia",
}

// classes are those of the school, of different sizes.
func classes(random *rand.Rand) []class {
	made := func(n int) []string {
		names := make([]string, n)
		for i := range names {
			given, family := standin.Person(random)
			names[i] = given + " " + family
		}
		return names
	}
	aspen := made(21)
	aspen = append(aspen, aspen[3]) // two of one name
	return []class{{"8 Juniper", []int{0}, juniper}, {"9 Aspen", []int{0, 1}, aspen}, {"10 Willow", []int{1}, made(18)},
		{"7 Rowan", []int{2}, made(30)}}
}
