package standin

import (
	"bytes"
	"io"
	"mime"
	"mime/quotedprintable"
	"net"
	"net/mail"
	"slices"
	"strings"
	"sync"
	"time"

	"alpenglow/web"

	"github.com/emersion/go-smtp"
)

// keptLetters is how many messages a mailbox keeps, and largestLetter how large they
// are at most, in bytes.
const (
	keptLetters   = 200
	largestLetter = 256 << 10
)

// Mailbox stands in for the mail of a school: it takes messages by SMTP on this
// machine alone and keeps the last ones in memory, whoever they are for.
type Mailbox struct {
	server  *smtp.Server
	address string

	mu      sync.Mutex
	letters []web.Letter
}

// NewMailbox opens a mailbox on a free port of this machine.
func NewMailbox() (*Mailbox, error) {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return nil, err
	}
	m := &Mailbox{address: listener.Addr().String()}
	m.server = smtp.NewServer(
		smtp.BackendFunc(func(*smtp.Conn) (smtp.Session, error) { return &delivery{box: m}, nil }),
	)
	m.server.Domain, m.server.MaxMessageBytes, m.server.MaxRecipients = "localhost", largestLetter, 10
	m.server.ReadTimeout, m.server.WriteTimeout = 10*time.Second, 10*time.Second
	go m.server.Serve(listener)
	return m, nil
}

// URL is the address by which mail is sent to it.
func (m *Mailbox) URL() string { return "smtp://" + m.address + "?from=school@tern-harbour.example" }

// Close ends it.
func (m *Mailbox) Close() error { return m.server.Close() }

// Letters lists what has come, the last one first.
func (m *Mailbox) Letters() []web.Letter {
	m.mu.Lock()
	defer m.mu.Unlock()
	letters := slices.Clone(m.letters)
	slices.Reverse(letters)
	return letters
}

// delivery is one connection that brings mail.
type delivery struct {
	box *Mailbox
	to  []string
}

func (d *delivery) Mail(string, *smtp.MailOptions) error { return nil }
func (d *delivery) Reset()                               { d.to = nil }
func (d *delivery) Logout() error                        { return nil }

func (d *delivery) Rcpt(to string, _ *smtp.RcptOptions) error {
	d.to = append(d.to, to)
	return nil
}

func (d *delivery) Data(r io.Reader) error {
	data, err := io.ReadAll(io.LimitReader(r, largestLetter))
	if err != nil {
		return err
	}
	message, err := mail.ReadMessage(bytes.NewReader(data))
	if err != nil {
		return &smtp.SMTPError{Code: 554, Message: "no message"}
	}
	subject, err := new(mime.WordDecoder).DecodeHeader(message.Header.Get("Subject"))
	if err != nil {
		return &smtp.SMTPError{Code: 554, Message: "no subject"}
	}
	body := io.Reader(message.Body)
	if strings.EqualFold(message.Header.Get("Content-Transfer-Encoding"), "quoted-printable") {
		body = quotedprintable.NewReader(body)
	}
	text, err := io.ReadAll(body)
	if err != nil {
		return err
	}
	d.box.mu.Lock()
	defer d.box.mu.Unlock()
	d.box.letters = append(d.box.letters, web.Letter{To: strings.Join(d.to, ", "), Subject: subject,
		Body: strings.ReplaceAll(string(text), "\r\n", "\n"), At: time.Now()})
	d.box.letters = d.box.letters[max(0, len(d.box.letters)-keptLetters):]
	return nil
}
