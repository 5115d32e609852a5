package script

import (
	"strconv"
	"strings"

	"alpenglow/core/poll"
)

// saids are the words with which a line below a question can begin.
var saids = map[string]bool{"why": true, "sure": true, "shuffle": true, "time": true, "is": true, "or": true,
	"mistake": true, "unit": true, "near": true, "in": true, "slips": true, "capitals": true, "steps": true,
	"low": true, "high": true, "text": true, "link": true}

// pen writes the lines below a question.
type pen struct{ strings.Builder }

func (p *pen) line(text string) { p.WriteString(text + "\n") }

// say writes a line with its word; nothing where there is nothing to say.
func (p *pen) say(word, text string) {
	if text != "" {
		p.line(word + ": " + escape(text, ""))
	}
}

// mistake writes a known mistake, with what it is already in the spelling of its kind.
func (p *pen) mistake(name, what string) { p.line("mistake: " + escape(name, "=") + " = " + what) }

// escape writes a text into one line: with a backslash before each of some signs, before what
// would else be one, and before a space at its ends.
func escape(text, signs string) string {
	var b strings.Builder
	for i, r := range text {
		switch {
		case r == '\n':
			b.WriteString(`\n`)
			continue
		case r == '\\', strings.ContainsRune(signs, r), r == ' ' && (i == 0 || i == len(text)-1),
			// A text that begins as a line of another kind would.
			i == 0 && strings.ContainsRune("+-=[#/", r):
			b.WriteByte('\\')
		}
		b.WriteRune(r)
	}
	return b.String()
}

// unescape reads it back.
func unescape(text string) string {
	var b strings.Builder
	escaped := false
	for _, r := range text {
		switch {
		case !escaped && r == '\\':
			escaped = true
			continue
		case escaped && r == 'n':
			b.WriteByte('\n')
		default:
			b.WriteRune(r)
		}
		escaped = false
	}
	return b.String()
}

// cut takes a line apart at a sign that has no backslash before it.
func cut(text string, sign byte) (before, after string, found bool) {
	for i := 0; i < len(text); i++ {
		switch text[i] {
		case '\\':
			i++
		case sign:
			return strings.TrimSpace(text[:i]), strings.TrimSpace(text[i+1:]), true
		}
	}
	return strings.TrimSpace(text), "", false
}

// split takes a line apart at each such sign.
func split(text string, sign byte) []string {
	var all []string
	for {
		one, rest, more := cut(text, sign)
		all = append(all, unescape(one))
		if !more {
			return all
		}
		text = rest
	}
}

func joined(texts []string) string {
	all := make([]string, len(texts))
	for i, t := range texts {
		all[i] = escape(t, "/")
	}
	return strings.Join(all, " / ")
}

// reading is what stands below a question while it is read: what is read is taken away, and
// what stays was not understood.
type reading struct {
	id       func() string
	language string
	said     map[string][]string
	lines    []string
	failed   bool
}

func (r *reading) fail(is bool) { r.failed = r.failed || is }

func (r *reading) has(word string) bool { return len(r.said[word]) > 0 }

func (r *reading) one(word string) string {
	all := r.all(word)
	r.fail(len(all) > 1)
	if len(all) == 0 {
		return ""
	}
	return all[0]
}

func (r *reading) all(word string) []string {
	all := r.said[word]
	delete(r.said, word)
	return all
}

func (r *reading) yes(word string) bool {
	said := strings.ToLower(r.one(word))
	r.fail(said != "" && said != "yes" && said != "no")
	return said == "yes"
}

func (r *reading) number(word string) int { return r.count(r.one(word)) }

func (r *reading) count(text string) int {
	n, err := strconv.Atoi(strings.TrimSpace(text))
	r.fail(err != nil)
	return n
}

// take takes the lines away.
func (r *reading) take() []string {
	all := r.lines
	r.lines = nil
	return all
}

// mistakes gives the names of known mistakes, and what they are.
func (r *reading) mistakes(each func(name, what string)) {
	for _, line := range r.all("mistake") {
		name, what, is := cut(line, '=')
		r.fail(!is)
		each(unescape(name), what)
	}
}

// at gives the thing with a number from 1 in a list.
func (r *reading) at(all []poll.Option, text string) string {
	n := r.count(text)
	if n < 1 || n > len(all) {
		r.fail(true)
		return ""
	}
	return all[n-1].ID
}

func place(all []poll.Option, id string) string {
	for i, o := range all {
		if o.ID == id {
			return strconv.Itoa(i + 1)
		}
	}
	return "0"
}
