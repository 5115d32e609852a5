package formats

import (
	"archive/zip"
	"bytes"
	"cmp"
	"encoding/csv"
	"errors"
	"io"
	"slices"
	"strings"

	"alpenglow/core/refusal"
	"alpenglow/core/roster"
)

// Bounds of a register, as it comes and unpacked, and of the classes in it.
const (
	MaxRegister         = 8 << 20
	maxUnpackedRegister = 64 << 20
	maxRegisterClasses  = 500
)

// Register is what a school's register says: its classes with their students.
type Register struct {
	Classes []RegisterClass
	// Problems are rows that cannot be used.
	Problems []RegisterProblem
}

// RegisterClass is a class of a register, known there by its ID.
type RegisterClass struct {
	ID       string
	Name     string
	Students []RegisterStudent
}

// RegisterStudent is a student of a class of a register.
type RegisterStudent struct {
	ID   string
	Name string
}

// RegisterProblem is a row, counted from 1 below the headings, that is left out.
type RegisterProblem struct {
	File string `json:"file"`
	Row  int    `json:"row"`
	// Why is "name", where there is no name that can be kept, "class" or "student",
	// where what it names is not in the register.
	Why string `json:"why"`
}

// ReadRegister reads a register as 1EdTech OneRoster 1.2 has it in CSV: a ZIP file
// with classes.csv, users.csv and enrollments.csv, whose rows name each other by
// sourcedId. Rows whose status is "tobedeleted" are left out. Files and columns are
// found by their names in any order. (OneRoster 1.2 CSV binding, 2022, from memory:
// givenName and familyName, preferredGivenName and preferredFamilyName before them,
// role "student" in enrollments.)
func ReadRegister(data []byte) (Register, error) {
	if len(data) > MaxRegister {
		return Register{}, refusal.About(refusal.FileHuge, "at most %d bytes", MaxRegister)
	}
	archive, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return Register{}, refusal.New(refusal.FileUnreadable)
	}
	left := int64(maxUnpackedRegister)
	read := func(name string) ([]map[string]string, error) { return registerRows(archive, name, &left) }
	classes, err1 := read("classes.csv")
	users, err2 := read("users.csv")
	enrollments, err3 := read("enrollments.csv")
	if err := errors.Join(err1, err2, err3); err != nil {
		return Register{}, cmp.Or(error(refusal.Of(err)), err)
	}
	return registerOf(classes, users, enrollments)
}

func registerOf(classes, users, enrollments []map[string]string) (Register, error) {
	r := Register{}
	problem := func(file string, row int, why string) {
		r.Problems = append(r.Problems, RegisterProblem{file, row + 1, why})
	}
	gone := func(row map[string]string) bool { return strings.EqualFold(row["status"], "tobedeleted") }
	at, named := map[string]int{}, map[string]string{}
	for i, row := range classes {
		if gone(row) {
			continue
		}
		name, err := roster.CheckClassName(row["title"])
		if err != nil || row["sourcedId"] == "" {
			problem("classes.csv", i, "name")
			continue
		}
		at[row["sourcedId"]] = len(r.Classes)
		r.Classes = append(r.Classes, RegisterClass{ID: row["sourcedId"], Name: name})
	}
	if len(r.Classes) > maxRegisterClasses {
		return r, refusal.About(refusal.FileHuge, "at most %d classes", maxRegisterClasses)
	}
	for i, row := range users {
		if gone(row) {
			continue
		}
		given := cmp.Or(row["preferredGivenName"], row["givenName"])
		name, err := roster.ReadName(given + " " + cmp.Or(row["preferredFamilyName"], row["familyName"]))
		if err != nil || row["sourcedId"] == "" {
			problem("users.csv", i, "name")
			continue
		}
		named[row["sourcedId"]] = name
	}
	in := map[[2]string]bool{}
	for i, row := range enrollments {
		if gone(row) || !strings.EqualFold(row["role"], "student") {
			continue
		}
		class, student := row["classSourcedId"], row["userSourcedId"]
		place, ok := at[class]
		switch {
		case !ok:
			problem("enrollments.csv", i, "class")
		case named[student] == "":
			problem("enrollments.csv", i, "student")
		case !in[[2]string{class, student}]:
			in[[2]string{class, student}] = true
			c := &r.Classes[place]
			c.Students = append(c.Students, RegisterStudent{student, named[student]})
		}
	}
	for _, c := range r.Classes {
		if len(c.Students) > roster.MaxClass {
			return r, refusal.About(refusal.TooMany, "a class has at most %d students", roster.MaxClass)
		}
	}
	slices.SortStableFunc(r.Classes, func(a, b RegisterClass) int { return cmp.Compare(a.Name, b.Name) })
	return r, nil
}

// registerRows reads one of the files, each row by the names of its columns; left is
// how much may still be unpacked.
func registerRows(archive *zip.Reader, name string, left *int64) ([]map[string]string, error) {
	at := slices.IndexFunc(archive.File, func(f *zip.File) bool {
		return strings.EqualFold(f.Name[strings.LastIndexByte(f.Name, '/')+1:], name)
	})
	if at < 0 {
		return nil, refusal.About(refusal.FileUnreadable, "%s", name)
	}
	f, err := archive.File[at].Open()
	if err != nil {
		return nil, refusal.About(refusal.FileUnreadable, "%s", name)
	}
	defer f.Close()
	data, err := io.ReadAll(io.LimitReader(f, *left+1))
	if *left -= int64(len(data)); err != nil || *left < 0 {
		return nil, refusal.About(refusal.FileHuge, "%s", name)
	}
	text, err := decoded(data)
	if err != nil {
		return nil, err
	}
	reader := csv.NewReader(strings.NewReader(text))
	reader.FieldsPerRecord, reader.LazyQuotes = -1, true
	heads, err := reader.Read()
	if err != nil || len(heads) > 200 {
		return nil, refusal.About(refusal.FileUnreadable, "%s", name)
	}
	rows := []map[string]string{}
	for {
		cells, err := reader.Read()
		if errors.Is(err, io.EOF) {
			return rows, nil
		}
		if err != nil {
			return nil, refusal.About(refusal.FileUnreadable, "%s", name)
		}
		row := map[string]string{}
		for i, cell := range cells[:min(len(cells), len(heads))] {
			row[strings.TrimSpace(heads[i])] = strings.TrimSpace(cell)
		}
		rows = append(rows, row)
	}
}
