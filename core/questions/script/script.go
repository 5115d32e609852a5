// Package script reads and writes questions as a text that is quick to type. Its format is
// described in docs/formats/questions-text.md.
package script

import (
	"bufio"
	"bytes"
	"cmp"
	"io"
	"strconv"
	"strings"

	"alpenglow/core/poll"
	"alpenglow/core/questions"
	"alpenglow/core/refusal"
)

// form is how one kind of question is written: the word that begins it, what stands below the
// question, and how that is read.
type form struct {
	word  string
	kind  poll.Kind
	write func(q poll.Question, p *pen)
	read  func(r *reading) poll.Body
}

// forms lists all kinds that a text can hold; a new one is added here.
func forms() []form {
	return []form{
		{"choose", poll.KindChoice, writeChoice, readChoice},
		{"choose all", poll.KindSeveral, writeSeveral, readSeveral},
		{"true or false", poll.KindTruth, writeTruth, readTruth},
		{"number", poll.KindNumber, writeNumber, readNumber},
		{"short", poll.KindShort, writeShort, readShort},
		{
			"open",
			poll.KindOpen,
			writeNothing,
			func(*reading) poll.Body { return poll.Body{Kind: poll.KindOpen, Open: &poll.Free{}} },
		},
		{"scale", poll.KindScale, writeScale, readScale},
		{"order", poll.KindOrder, writeOrder, readOrder},
		{"rank", poll.KindRank, writeRank, readRank},
		{"match", poll.KindMatch, writeMatch, readMatch},
		{"blanks", poll.KindBlanks, writeBlanks, readBlanks},
		{"boxes", poll.KindBoxes, writeBoxes, readBoxes},
		{"memory", poll.KindMemory, writeMemory, readMemory},
		{
			"draw",
			poll.KindDraw,
			writeNothing,
			func(*reading) poll.Body { return poll.Body{Kind: poll.KindDraw, Draw: &poll.Draw{}} },
		},
	}
}

func writeNothing(poll.Question, *pen) {}

// Word gives the word that begins a kind of question; nothing of one that a text cannot hold.
func Word(k poll.Kind) string {
	for _, f := range forms() {
		if f.kind == k {
			return f.word
		}
	}
	return ""
}

// Write writes questions, and gives them back with what the text does not hold.
func Write(to io.Writer, s questions.Sheet) ([]questions.Item, error) {
	out := bufio.NewWriter(to)
	if s.Title != "" {
		out.WriteString("# " + escape(s.Title, "") + "\n\n")
	}
	var items []questions.Item
	for i, item := range s.Items {
		told := questions.Item{At: i + 1, Asked: item.Asked}
		if word := Word(item.Asked.Kind); word == "" {
			told.Lose(questions.LossKind)
		} else {
			out.WriteString(word + ": " + escape(item.Asked.Text, "") + "\n" + Below(item.Asked) + "\n")
			lost(&told)
		}
		items = append(items, told)
	}
	return items, out.Flush()
}

// lost notes what a text does not hold of a question.
func lost(i *questions.Item) {
	if i.Asked.Sound != "" {
		i.Lose(questions.LossMedia)
	}
	i.Asked.Sound = ""
	if len(i.Asked.Pictures()) > 0 {
		i.Lose(questions.LossPicture)
	}
	if len(i.Asked.Objectives) > 0 {
		i.Lose(questions.LossObjectives)
	}
	if i.Asked.InsteadOf != "" {
		i.Lose(questions.LossInstead)
	}
}

// Below gives the lines below a question's words.
func Below(q poll.Question) string {
	p := &pen{}
	for _, f := range forms() {
		if f.kind == q.Kind {
			f.write(q, p)
		}
	}
	p.say("why", q.Why)
	p.say("link", q.Link)
	if q.Sure {
		p.say("sure", "yes")
	}
	if q.Shuffle {
		p.say("shuffle", "yes")
	}
	if q.Seconds > 0 {
		p.say("time", strconv.Itoa(q.Seconds))
	}
	return p.String()
}

// Read reads a text. Each question that cannot be read is there with its line and no other is lost.
// Ids of what questions offer are made by id.
func Read(data []byte, language string, id func() string) (questions.Sheet, error) {
	var s questions.Sheet
	if len(data) > questions.MaxFile {
		return s, refusal.About(refusal.FileHuge, "at most %d bytes", questions.MaxFile)
	}
	lines := bufio.NewScanner(bytes.NewReader(data))
	lines.Buffer(nil, questions.MaxFile+1)
	var word, text string
	var below []string
	begun := 0
	end := func() {
		if begun > 0 {
			q, err := Question(word, text, below, language, id)
			s.Items = append(s.Items, questions.Item{At: begun, Asked: q, Failed: err})
		}
		begun, below = 0, nil
	}
	for n := 1; lines.Scan(); n++ {
		line := strings.TrimSpace(strings.TrimPrefix(lines.Text(), "\uFEFF"))
		if w, t, is := beginning(line); is {
			end()
			if len(s.Items) >= questions.MaxItems {
				return s, refusal.About(refusal.FileHuge, "at most %d questions", questions.MaxItems)
			}
			word, text, begun = w, unescape(t), n
			continue
		}
		switch {
		case line == "" || strings.HasPrefix(line, "//"):
		case strings.HasPrefix(line, "# ") && begun == 0:
			s.Title = cmp.Or(s.Title, unescape(line[2:]))
		case begun == 0:
			s.Items = append(s.Items, questions.Item{At: n, Failed: refusal.New(refusal.NoQuestion)})
		default:
			below = append(below, line)
		}
	}
	if lines.Err() != nil {
		return s, refusal.New(refusal.FileUnreadable)
	}
	end()
	return s, nil
}

// Is reports whether a text begins as one of questions does.
func Is(data []byte) bool {
	for line := range strings.Lines(string(data[:min(len(data), 4096)])) {
		line = strings.TrimSpace(strings.TrimPrefix(line, "\uFEFF"))
		if _, _, is := beginning(line); is {
			return true
		}
		if line != "" && !strings.HasPrefix(line, "//") && !strings.HasPrefix(line, "# ") {
			return false
		}
	}
	return false
}

// beginning takes apart the line with which a question begins.
func beginning(line string) (word, text string, is bool) {
	word, text, is = strings.Cut(line, ":")
	word = strings.ToLower(strings.TrimSpace(word))
	if !is || !known(word) {
		return "", "", false
	}
	return word, strings.TrimSpace(text), true
}

func known(word string) bool {
	for _, f := range forms() {
		if f.word == word {
			return true
		}
	}
	return false
}

// Question reads a question: the word of its kind, its own words, and the lines below.
func Question(word, text string, below []string, language string, id func() string) (poll.Question, error) {
	r := &reading{id: id, language: language, said: map[string][]string{}}
	q := poll.Question{Text: text}
	for _, line := range below {
		key, value, is := strings.Cut(line, ":")
		key = strings.ToLower(strings.TrimSpace(key))
		if is && saids[key] {
			r.said[key] = append(r.said[key], strings.TrimSpace(value))
		} else {
			r.lines = append(r.lines, line)
		}
	}
	for _, f := range forms() {
		if f.word == word {
			q.Body = f.read(r)
		}
	}
	q.Why, q.Link = unescape(r.one("why")), unescape(r.one("link"))
	q.Sure, q.Shuffle = r.yes("sure"), r.yes("shuffle")
	if r.has("time") {
		q.Seconds = r.number("time")
	}
	for key := range r.said {
		r.fail(len(r.said[key]) > 0) // nothing of this kind of question says that
	}
	r.fail(len(r.lines) > 0)
	if r.failed {
		return q, refusal.New(refusal.NoQuestion)
	}
	return q, q.Check()
}
