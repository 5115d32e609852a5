package web

import (
	"time"

	"alpenglow/core/account"
)

// What goes over HTTP about accounts.

// InvitationToken is what a link to an account, or to a new password, holds.
type InvitationToken struct {
	Token string `json:"token"`
}

// Invited is what such a link is good for: an account in a role, for an address if it
// has one, or a new password for somebody.
type Invited struct {
	Role        account.Role `json:"role"`
	Email       string       `json:"email"`
	Name        string       `json:"name,omitempty"`
	NewPassword bool         `json:"newPassword,omitempty"`
}

// Accept makes the account, or sets the new password; then name and address are left out.
type Accept struct {
	Token    string `json:"token"`
	Name     string `json:"name"`
	Email    string `json:"email"`
	Password string `json:"password"`
}

// Staff lists all accounts; those who have left stand last.
type Staff struct {
	People []StaffPerson `json:"people"`
}

// StaffPerson is one of them.
type StaffPerson struct {
	ID    string       `json:"id"`
	Name  string       `json:"name"`
	Email string       `json:"email"`
	Role  account.Role `json:"role"`
	Left  bool         `json:"left,omitempty"`
	Me    bool         `json:"me,omitempty"`
}

// Invite asks for a link to an account in a role; without an address for whoever has it.
type Invite struct {
	Email string       `json:"email"`
	Role  account.Role `json:"role"`
}

// InviteLink is a link to hand on, and until when it is good.
type InviteLink struct {
	Link    string    `json:"link"`
	Expires time.Time `json:"expires"`
}

// SetStanding changes somebody's role, or lets them leave or come back.
type SetStanding struct {
	Role *account.Role `json:"role,omitempty"`
	Left *bool         `json:"left,omitempty"`
}

// Account is one's own account with its sign-ins, the last one first.
type Account struct {
	Name    string       `json:"name"`
	Email   string       `json:"email"`
	Role    account.Role `json:"role"`
	SignIns []SignedIn   `json:"signIns"`
}

// SignedIn is a sign-in; Here says that it is this one.
type SignedIn struct {
	ID     string    `json:"id"`
	Device string    `json:"device"`
	MadeAt time.Time `json:"madeAt"`
	Here   bool      `json:"here,omitempty"`
}

// SetAccount changes one's name.
type SetAccount struct {
	Name string `json:"name"`
}

// SetPassword changes one's password.
type SetPassword struct {
	Now  string `json:"now"`
	Next string `json:"next"`
}
