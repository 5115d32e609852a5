package web

import (
	"time"

	"alpenglow/core/account"
	"alpenglow/core/settings"
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
	People      []StaffPerson `json:"people"`
	Invitations []InvitedItem `json:"invitations"`
}

// StaffPerson is one of them.
type StaffPerson struct {
	ID    string       `json:"id"`
	Name  string       `json:"name"`
	Email string       `json:"email"`
	Role  account.Role `json:"role"`
	Left  bool         `json:"left,omitempty"`
	Me    bool         `json:"me,omitempty"`
	// Second says that they have a second factor.
	Second bool `json:"second,omitempty"`
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
	// Mailed is the address to which it is being sent as well.
	Mailed string `json:"mailed,omitempty"`
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
	// Second says that there is a second factor, RecoveryLeft how many recovery codes
	// are left.
	Second       bool `json:"second,omitempty"`
	RecoveryLeft int  `json:"recoveryLeft,omitempty"`
}

// NewSecond is a secret to be taken by an authenticator, before it counts: as text, as
// an address, and as a QR code, the path of an SVG picture of so many units.
type NewSecond struct {
	Secret  string `json:"secret"`
	Address string `json:"address"`
	QR      string `json:"qr"`
	Units   int    `json:"units"`
}

// SetSecond confirms a secret by a code made with it, or without a secret takes the
// second factor away; Now is the password.
type SetSecond struct {
	Now    string `json:"now"`
	Secret string `json:"secret,omitempty"`
	Code   string `json:"code"`
}

// Recovery are the recovery codes; they are told once.
type Recovery struct {
	Codes []string `json:"codes"`
}

// ResetPassword asks for a link to a new password.
type ResetPassword struct {
	Email string `json:"email"`
}

// HandOver gives all that somebody who has left has made to a colleague.
type HandOver struct {
	To string `json:"to"`
}

// InvitedItem is an invitation that is still good. Sent says that its mail has gone,
// Problem why not yet, and Again when it is tried again; nil for never.
type InvitedItem struct {
	ID      string       `json:"id"`
	Email   string       `json:"email"`
	Role    account.Role `json:"role"`
	Expires time.Time    `json:"expires"`
	Mailed  bool         `json:"mailed,omitempty"`
	Sent    bool         `json:"sent,omitempty"`
	Problem string       `json:"problem,omitempty"`
	Again   *time.Time   `json:"again,omitempty"`
}

// Journal is who did what, the newest first.
type Journal struct {
	Entries []JournalEntry `json:"entries"`
}

// JournalEntry is a line of it; names are "" for who is gone.
type JournalEntry struct {
	ID     int64     `json:"id"`
	At     time.Time `json:"at"`
	By     string    `json:"by"`
	What   Did       `json:"what"`
	About  string    `json:"about,omitempty"`
	Detail string    `json:"detail,omitempty"`
}

// HouseReply is what administrators decide for all, with what there is to choose from.
type HouseReply struct {
	House settings.House  `json:"house"`
	Signs []settings.Sign `json:"signs"`
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

// Mails are what has come into a made-up mailbox, the newest first.
type Mails struct {
	Letters []Letter `json:"letters"`
}

// Letter is one of them.
type Letter struct {
	To      string    `json:"to"`
	Subject string    `json:"subject"`
	Body    string    `json:"body"`
	At      time.Time `json:"at"`
}

// AccountReceipt says what was of an account that was erased.
type AccountReceipt struct {
	At        time.Time `json:"at"`
	Boards    int       `json:"boards"`
	Lessons   int       `json:"lessons"`
	Templates int       `json:"templates"`
	SignIns   int       `json:"signIns"`
}

// AccountFile is everything about an account but its boards (docs/formats/account.md).
type AccountFile struct {
	Format    string        `json:"format"` // "account"
	Version   int           `json:"version"`
	Made      time.Time     `json:"made"`
	Name      string        `json:"name"`
	Email     string        `json:"email"`
	Role      account.Role  `json:"role"`
	Second    bool          `json:"second"`
	Settings  settings.Own  `json:"settings"`
	Lessons   []FileLesson  `json:"lessons"`
	Templates []OwnTemplate `json:"templates"`
	SignIns   []FileSignIn  `json:"signIns"`
}

// FileLesson is a lesson in such a file.
type FileLesson struct {
	Title    string     `json:"title"`
	Class    string     `json:"class,omitempty"`
	Began    time.Time  `json:"began"`
	Ended    *time.Time `json:"ended,omitempty"`
	Students int        `json:"students"`
}

// FileSignIn is a sign-in in such a file.
type FileSignIn struct {
	Device string    `json:"device"`
	At     time.Time `json:"at"`
}
