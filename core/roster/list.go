package roster

import (
	"encoding/csv"
	"slices"
	"strings"
	"unicode/utf8"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
)

// Bounds of a class and of what is pasted to make one.
const (
	MaxClass     = 400       // students
	MaxClassName = 60        // characters
	MaxListed    = 256 << 10 // bytes of a pasted list
)

// Row is a line of a pasted list that has something on it: a name as it is kept, or
// why it cannot be. Line counts from 1. Twice says that the list, or the class, has
// somebody of that name already: both stay, told apart by who they are.
type Row struct {
	Line    int          `json:"line"`
	Name    string       `json:"name"`
	Twice   bool         `json:"twice,omitempty"`
	Problem refusal.Code `json:"problem,omitempty"`
}

// What the heading of a column of names is called, in small letters.
var (
	wholeHeads = []string{"name", "student", "students", "pupil", "full name", "student name"}
	firstHeads = []string{"first name", "firstname", "first", "given name", "given names", "forename"}
	lastHeads  = []string{"last name", "lastname", "last", "surname", "family name"}
)

// columns says where the names stand in each line.
type columns struct {
	given, family int // -1: none; a whole name is in given
}

// ReadList reads a list of names as it is typed or pasted from a spreadsheet: one name
// a line, or in two columns with tabs, semicolons or commas between. A line of
// headings says which column is which; without one the columns stand as the names
// are said, but "Marlow, Rosa" is Rosa Marlow (common practice). There are those who
// are in the class already. It is refused when it is too long.
func ReadList(text string, there []string) ([]Row, error) {
	if len(text) > MaxListed || !utf8.ValidString(text) {
		return nil, refusal.New(refusal.TooLarge)
	}
	lines := strings.Split(strings.TrimPrefix(strings.ReplaceAll(text, "\r\n", "\n"), "\ufeff"), "\n")
	separator := separatorOf(lines)
	at, headed := columns{0, 1}, false
	rows, known := []Row{}, map[string]bool{}
	for _, name := range there {
		known[strings.ToLower(name)] = true
	}
	for i, line := range lines {
		cells := cellsOf(line, separator)
		if len(cells) == 0 {
			continue
		}
		if !headed && len(rows) == 0 {
			if found, ok := headings(cells); ok {
				at, headed = found, true
				continue
			}
		}
		name, err := ReadName(at.name(cells, separator == ',' && !headed))
		row := Row{Line: i + 1, Name: name}
		if r := refusal.Of(err); r != nil {
			row.Problem, row.Name = r.Code, short(strings.TrimSpace(line))
		} else {
			row.Twice = known[strings.ToLower(name)]
			known[strings.ToLower(name)] = true
		}
		rows = append(rows, row)
	}
	if len(rows) > MaxClass {
		return nil, refusal.About(refusal.TooMany, "a class has at most %d students", MaxClass)
	}
	return rows, nil
}

// short gives the beginning of a line that is no name.
func short(line string) string {
	r := []rune(line)
	return string(r[:min(len(r), MaxName)])
}

// separatorOf gives what stands between the columns: what is in every line that is
// not empty; 0 for one column.
func separatorOf(lines []string) rune {
	for _, separator := range "\t;," {
		full, all := 0, true
		for _, line := range lines {
			if strings.TrimSpace(line) != "" {
				full++
				all = all && strings.ContainsRune(line, separator)
			}
		}
		if all && full > 0 {
			return separator
		}
	}
	return 0
}

// cellsOf gives the cells of a line; none for a line with nothing on it.
func cellsOf(line string, separator rune) []string {
	cells := []string{line}
	if separator != 0 {
		reader := csv.NewReader(strings.NewReader(line))
		reader.Comma, reader.LazyQuotes, reader.FieldsPerRecord = separator, true, -1
		if read, err := reader.Read(); err == nil {
			cells = read
		}
	}
	for i := range cells {
		cells[i] = strings.TrimSpace(cells[i])
	}
	if !slices.ContainsFunc(cells, func(c string) bool { return c != "" }) {
		return nil
	}
	return cells
}

// headings finds the columns by a line of headings.
func headings(cells []string) (columns, bool) {
	find := func(heads []string) int {
		return slices.IndexFunc(cells, func(c string) bool { return slices.Contains(heads, strings.ToLower(c)) })
	}
	given, family, whole := find(firstHeads), find(lastHeads), find(wholeHeads)
	switch {
	case given >= 0 && family >= 0:
		return columns{given, family}, true
	case whole >= 0:
		return columns{whole, -1}, true
	case given >= 0:
		return columns{given, -1}, true
	}
	return columns{}, false
}

// name puts a name together from its cells.
func (at columns) name(cells []string, turned bool) string {
	cell := func(i int) string {
		if i < 0 || i >= len(cells) {
			return ""
		}
		return cells[i]
	}
	if turned {
		return cell(at.family) + " " + cell(at.given)
	}
	return cell(at.given) + " " + cell(at.family)
}

// CheckClassName gives the name of a class as it is kept.
func CheckClassName(name string) (string, error) { return lesson.ReadCalled(name, MaxClassName) }
