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
	wholeHeads = []string{
		"name",
		"names",
		"student",
		"students",
		"pupil",
		"full name",
		"student name",
		"schüler",
		"schülerin",
	}
	firstHeads = []string{"first name", "firstname", "first", "given name", "givenname", "given names", "forename",
		"vorname"}
	lastHeads = []string{"last name", "lastname", "last", "surname", "family name", "familyname", "nachname",
		"familienname"}
)

// Columns says where in each row the names stand, counted from 0, -1 for nowhere: the
// first name or the whole one in Given, the last one in Family. Headed says that the
// first row holds headings.
type Columns struct {
	Given  int  `json:"given"`
	Family int  `json:"family"`
	Headed bool `json:"headed,omitempty"`
}

// MaxColumns is how many columns of a list are looked at.
const MaxColumns = 40

// Table is a list of names in rows and columns, each row with the number of its line
// from 1. Rows with nothing in them are left out.
type Table struct {
	Rows  [][]string
	Lines []int
	// By is what stands between the columns: a tab, a semicolon, a comma, or 0 for one
	// column alone.
	By rune
}

// ReadTable reads a list as it is typed, pasted from a spreadsheet or stands in a CSV
// file: in columns with tabs, semicolons or commas between if every line has them.
func ReadTable(text string) (Table, error) {
	if len(text) > MaxListed || !utf8.ValidString(text) {
		return Table{}, refusal.New(refusal.TooLarge)
	}
	lines := strings.Split(strings.TrimPrefix(strings.ReplaceAll(text, "\r\n", "\n"), "\ufeff"), "\n")
	table := Table{By: separatorOf(lines)}
	for i, line := range lines {
		if cells := cellsOf(line, table.By); len(cells) > 0 {
			table.Rows, table.Lines = append(table.Rows, cells[:min(len(cells), MaxColumns)]), append(table.Lines, i+1)
		}
	}
	return table, nil
}

// Guess finds the columns of a table: by its headings if there are any; without, the
// columns stand as the names are said, but "Marlow, Rosa" is Rosa Marlow (common
// practice).
func (t Table) Guess() Columns {
	if len(t.Rows) > 0 {
		if found, ok := headings(t.Rows[0]); ok {
			return found
		}
	}
	switch t.By {
	case 0:
		return Columns{Given: 0, Family: -1}
	case ',':
		return Columns{Given: 1, Family: 0}
	}
	return Columns{Given: 0, Family: 1}
}

// Names gives what becomes of each row of a table whose names stand in these columns.
// There are those who are in the class already. More than a class has are refused.
func (t Table) Names(at Columns, there []string) ([]Row, error) {
	rows, known := []Row{}, map[string]bool{}
	for _, name := range there {
		known[strings.ToLower(name)] = true
	}
	for i, cells := range t.Rows {
		if i == 0 && at.Headed {
			continue
		}
		name, err := ReadName(at.name(cells))
		row := Row{Line: t.Lines[i], Name: name}
		if r := refusal.Of(err); r != nil {
			row.Problem, row.Name = r.Code, short(strings.Join(cells, " "))
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

// ReadList reads a list of names; nil columns are guessed.
func ReadList(text string, at *Columns, there []string) ([]Row, error) {
	table, err := ReadTable(text)
	if err != nil {
		return nil, err
	}
	columns := table.Guess()
	if at != nil {
		columns = *at
	}
	return table.Names(columns, there)
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
func headings(cells []string) (Columns, bool) {
	find := func(heads []string) int {
		return slices.IndexFunc(cells, func(c string) bool { return slices.Contains(heads, strings.ToLower(c)) })
	}
	given, family, whole := find(firstHeads), find(lastHeads), find(wholeHeads)
	switch {
	case given >= 0 && family >= 0:
		return Columns{given, family, true}, true
	case whole >= 0:
		return Columns{whole, -1, true}, true
	case given >= 0:
		return Columns{given, -1, true}, true
	}
	return Columns{}, false
}

// name puts a name together from its cells.
func (at Columns) name(cells []string) string {
	cell := func(i int) string {
		if i < 0 || i >= len(cells) {
			return ""
		}
		return cells[i]
	}
	return cell(at.Given) + " " + cell(at.Family)
}

// CheckClassName gives the name of a class as it is kept.
func CheckClassName(name string) (string, error) { return lesson.ReadCalled(name, MaxClassName) }
