package roster_test

import (
	"strings"
	"testing"
	"unicode/utf8"

	"alpenglow/core/refusal"
	"alpenglow/core/roster"
)

func TestReadList(t *testing.T) {
	for name, c := range map[string]struct {
		text string
		want string // the names, those of nobody else as *name, problems as !
	}{
		"one a line":            {"Noor Haddad\n\n  Kenji  Mori \n", "Noor Haddad|Kenji Mori"},
		"with line ends of old": {"Noor\r\nKenji\r\n", "Noor|Kenji"},
		"two columns":           {"Noor\tHaddad\nKenji\tMori", "Noor Haddad|Kenji Mori"},
		"with headings":         {"Surname;First name\nHaddad;Noor\nMori;Kenji", "Noor Haddad|Kenji Mori"},
		"more columns": {"No.\tName\tBorn\n1\tNoor Haddad\t2014\n2\tKenji Mori\t2013",
			"Noor Haddad|Kenji Mori"},
		"the family's name first": {"Haddad, Noor\nMori, Kenji", "Noor Haddad|Kenji Mori"},
		"a comma in one of them":  {"Haddad, Noor\nKenji Mori", "Haddad, Noor|Kenji Mori"},
		"in quotation marks":      {"\"Haddad\",\"Noor\"\n\"van, den Berg\",\"Max\"", "Noor Haddad|Max van, den Berg"},
		"a heading alone":         {"Name\n", ""},
		"of one name":             {"Noor\nnoor\nKenji", "Noor|*noor|Kenji"},
		"in the class already":    {"Vera\nNoor", "*Vera|Noor"},
		"a mark before all":       {"\ufeffName\nNoor", "Noor"},
		"right to left":           {"علا حداد\nנועה", "علا حداد|נועה"},
		"no names": {"...\nNoor\u202e\n" + strings.Repeat("x", 200),
			"!name-empty|!name-control|!name-too-long"},
		"nothing":               {" \n\t\n", ""},
		"a name is called name": {"Noor\nName", "Noor|Name"},
	} {
		rows, err := roster.ReadList(c.text, nil, []string{"Vera"})
		if err != nil {
			t.Fatal(name, err)
		}
		var got []string
		for _, r := range rows {
			switch {
			case r.Problem != "":
				got = append(got, "!"+string(r.Problem))
			case r.Twice:
				got = append(got, "*"+r.Name)
			default:
				got = append(got, r.Name)
			}
		}
		if strings.Join(got, "|") != c.want {
			t.Errorf("%s: %q, want %q", name, strings.Join(got, "|"), c.want)
		}
	}
	for text, want := range map[string]refusal.Code{
		strings.Repeat("Noor\n", 401): refusal.TooMany, strings.Repeat("x", roster.MaxListed+1): refusal.TooLarge,
		"Noor\xff": refusal.TooLarge} {
		if _, err := roster.ReadList(text, nil, nil); refusal.Of(err) == nil || refusal.Of(err).Code != want {
			t.Errorf("%.20q: %v, want %s", text, err, want)
		}
	}
}

// Whatever is pasted: every row has a name that can be kept or says why not, and is
// of a line that has something on it.
func FuzzReadList(f *testing.F) {
	for _, seed := range []string{"Noor\tHaddad\n", "\"a\",b\n\"", "Surname;Name\n;;", "a,b\r\nc", "\ufeff\t\t"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		rows, err := roster.ReadList(text, nil, nil)
		if err != nil {
			return
		}
		lines := strings.Split(text, "\n")
		for _, r := range rows {
			if r.Line < 1 || r.Line > len(lines) || strings.TrimSpace(lines[r.Line-1]) == "" {
				t.Fatalf("row %+v of nothing", r)
			}
			if kept, err := roster.ReadName(r.Name); r.Problem == "" && (err != nil || kept != r.Name) ||
				!utf8.ValidString(r.Name) {
				t.Fatalf("kept %+v: %v", r, err)
			}
		}
	})
}
