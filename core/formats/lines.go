// Package formats answers: what does a file in an open format hold, and how is
// a board written as a file? Everything here works within stated limits, in
// memory, and refuses what is broken with a sentence.
package formats

import (
	"bytes"
	"encoding/csv"
	"errors"
	"io"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"

	"golang.org/x/text/encoding/charmap"
	utf16 "golang.org/x/text/encoding/unicode"
)

// MaxLines is how many lines of a text are taken.
const MaxLines = 100

// Listed is what a text lists, line by line.
type Listed struct {
	Heading string // what a table calls its columns, where its first line does
	Lines   []string
	More    int // how many are left out beyond MaxLines
}

// Lines gives the lines of a plain text, or the records of comma-, semicolon-
// or tab-separated values (RFC 4180) with their fields joined by " · ", without
// empty ones. Text may be UTF-8, UTF-16 with a byte order mark, or
// Windows-1252.
func Lines(data []byte) (Listed, error) {
	text, err := decoded(data)
	if err != nil {
		return Listed{}, err
	}
	records, err := records(text)
	if err != nil {
		return Listed{}, err
	}
	var full [][]string
	for _, r := range records {
		fields := make([]string, 0, len(r))
		for _, f := range r {
			if f = strings.Join(strings.Fields(f), " "); f != "" {
				fields = append(fields, f)
			}
		}
		if len(fields) > 0 {
			full = append(full, fields)
		}
	}
	if len(full) == 0 {
		return Listed{}, refusal.New(refusal.FileEmpty)
	}
	const between = " · "
	var listed Listed
	if len(full) >= 3 && len(records[0]) > 1 && heads(full[0], len(records[0])) {
		listed.Heading, full = cut(strings.Join(full[0], between), lesson.MaxTitle), full[1:]
	}
	listed.More = max(0, len(full)-MaxLines)
	for _, fields := range full[:len(full)-listed.More] {
		listed.Lines = append(listed.Lines, strings.Join(fields, between))
	}
	return listed, nil
}

// heads says whether a table's first line names its columns: each one, shortly,
// and without figures. That is common practice, no rule: a file may say so only
// in its media type (RFC 4180).
func heads(first []string, columns int) bool {
	return len(first) == columns && !slices.ContainsFunc(first, func(f string) bool {
		return len([]rune(f)) > 30 || strings.ContainsFunc(f, unicode.IsDigit)
	})
}

// decoded gives the text of a file. What has zero bytes is no text.
func decoded(data []byte) (string, error) {
	switch {
	case bytes.HasPrefix(data, []byte("\xff\xfe")), bytes.HasPrefix(data, []byte("\xfe\xff")):
		text, err := utf16.UTF16(utf16.LittleEndian, utf16.UseBOM).NewDecoder().Bytes(data)
		if err != nil {
			return "", refusal.New(refusal.FileUnreadable)
		}
		data = text
	case !utf8.Valid(data):
		text, err := charmap.Windows1252.NewDecoder().Bytes(data)
		if err != nil {
			return "", refusal.New(refusal.FileUnreadable)
		}
		data = text
	}
	if bytes.ContainsRune(data, 0) {
		return "", refusal.New(refusal.FileUnreadable)
	}
	return strings.TrimPrefix(string(data), "\ufeff"), nil
}

// records splits text by the separator that its first line has most of; text
// without any is taken line by line.
func records(text string) ([][]string, error) {
	first, _, _ := strings.Cut(text, "\n")
	separator, most := rune(0), 0
	for _, s := range "\t;," {
		// A comma in a sentence is followed by a blank, in a table it is not.
		if n := strings.Count(first, string(s)) - strings.Count(first, string(s)+" "); n > most {
			separator, most = s, n
		}
	}
	if separator == 0 {
		var all [][]string
		for line := range strings.SplitSeq(text, "\n") {
			all = append(all, []string{line})
		}
		return all, nil
	}
	reader := csv.NewReader(strings.NewReader(text))
	reader.Comma, reader.FieldsPerRecord, reader.LazyQuotes = separator, -1, true
	var all [][]string
	for {
		r, err := reader.Read()
		if errors.Is(err, io.EOF) {
			return all, nil
		}
		if err != nil {
			return nil, refusal.New(refusal.FileUnreadable)
		}
		all = append(all, r)
	}
}
