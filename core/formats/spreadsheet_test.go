package formats_test

import (
	"archive/zip"
	"bytes"
	"fmt"
	"io"
	"strings"
	"testing"

	"alpenglow/core/formats"
	"alpenglow/core/refusal"

	"github.com/xuri/excelize/v2"
)

// xlsx makes a spreadsheet of rows.
func xlsx(t *testing.T, rows ...[]any) []byte {
	f := excelize.NewFile()
	for i, r := range rows {
		if err := f.SetSheetRow("Sheet1", fmt.Sprint("A", i+1), &r); err != nil {
			t.Fatal(err)
		}
	}
	var out bytes.Buffer
	if err := f.Write(&out); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

func TestReadSpreadsheet(t *testing.T) {
	for name, c := range map[string]struct {
		data []byte
		want string
	}{
		"XLSX": {xlsx(t, []any{"No.", "Surname", "First name"}, []any{1, "Haddad", "Noor"}, []any{2, "Mori"}),
			"No.\tSurname\tFirst name\n1\tHaddad\tNoor\n2\tMori\t\n"},
		"XLSX with a line in a cell": {xlsx(t, []any{"Noor\nHaddad\t"}), "Noor Haddad \n"},
		"semicolons, Windows-1252":   {[]byte("Name;Klasse\nJ\xfcrgen;8\n"), "Name;Klasse\nJürgen;8\n"},
		"UTF-16":                     {[]byte("\xff\xfeN\x00\xe9\x00\n\x00"), "Né\n"},
		"UTF-8 with its mark":        {[]byte("\xef\xbb\xbfNoor\n"), "Noor\n"},
	} {
		got, err := formats.ReadSpreadsheet(c.data)
		if err != nil || got != c.want {
			t.Errorf("%s: %q, want %q, %v", name, got, c.want, err)
		}
	}
}

// Files that mean harm are refused, and soon.
func TestBadSpreadsheets(t *testing.T) {
	if testing.Short() {
		t.Skip("takes seconds")
	}
	bomb := func(part string, size int) []byte {
		good, err := zip.NewReader(bytes.NewReader(xlsx(t, []any{"Noor"})), int64(len(xlsx(t, []any{"Noor"}))))
		if err != nil {
			t.Fatal(err)
		}
		var out bytes.Buffer
		w := zip.NewWriter(&out)
		for _, f := range good.File {
			to, _ := w.Create(f.Name)
			from, err := f.Open()
			if err != nil {
				t.Fatal(err)
			}
			io.Copy(to, from)
			if f.Name == part {
				io.Copy(to, strings.NewReader(strings.Repeat(" ", size)))
			}
		}
		w.Close()
		return out.Bytes()
	}
	many := make([][]any, 6_001)
	for i := range many {
		many[i] = []any{i}
	}
	for name, c := range map[string]struct {
		data []byte
		want refusal.Code
	}{
		"nothing":                {nil, refusal.FileEmpty},
		"a zip of something":     {[]byte("PK\x03\x04 and nothing more"), refusal.FileUnreadable},
		"an older file":          {[]byte("\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1"), refusal.FileLocked},
		"a part of 200 MiB":      {bomb("xl/worksheets/sheet1.xml", 200<<20), refusal.FileUnreadable},
		"strings of 200 MiB":     {bomb("xl/sharedStrings.xml", 200<<20), refusal.FileUnreadable},
		"6,001 rows":             {xlsx(t, many...), refusal.FileHuge},
		"a large one":            {make([]byte, formats.MaxSpreadsheet+1), refusal.FileHuge},
		"no text of any program": {[]byte("a\x00b\xff"), refusal.FileUnreadable},
	} {
		if _, err := formats.ReadSpreadsheet(c.data); refusal.Of(err) == nil || refusal.Of(err).Code != c.want {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
}

func FuzzReadSpreadsheet(f *testing.F) {
	f.Add([]byte("Name;Klasse\nJ\xfcrgen;8\n"))
	f.Add([]byte("PK\x03\x04"))
	f.Fuzz(func(t *testing.T, data []byte) {
		if text, err := formats.ReadSpreadsheet(data); err == nil && strings.ContainsRune(text, 0) {
			t.Fatal("NUL in a list")
		}
	})
}
