package formats_test

import (
	"archive/zip"
	"bytes"
	"fmt"
	"slices"
	"testing"

	"alpenglow/core/formats"
	"alpenglow/core/refusal"
)

func zipped(t testing.TB, files map[string]string) []byte {
	var out bytes.Buffer
	w := zip.NewWriter(&out)
	for name, text := range files {
		to, err := w.Create(name)
		if err != nil {
			t.Fatal(err)
		}
		fmt.Fprint(to, text)
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

func TestReadRegister(t *testing.T) {
	r, err := formats.ReadRegister(zipped(t, map[string]string{
		"export/classes.csv": "title,sourcedId,status\n8 Rowan,c1,\n7 Alder,c2,active\nOld,c3,tobedeleted\n,c4,\n",
		"export/users.csv": "sourcedId,familyName,givenName,preferredGivenName,status\nu1,Haddad,Noor,,\nu2,Mori,Kenjiro,Kenji,\n" +
			"u3,,,,\nu4,Left,Early,,tobedeleted\n",
		"export/enrollments.csv": "sourcedId,role,userSourcedId,classSourcedId\ne1,student,u1,c1\ne2,student,u2,c1\n" +
			"e3,student,u2,c1\ne4,teacher,u1,c2\ne5,student,u3,c2\ne6,student,u1,c3\n",
	}))
	if err != nil {
		t.Fatal(err)
	}
	want := []formats.RegisterClass{{ID: "c2", Name: "7 Alder"},
		{
			ID:       "c1",
			Name:     "8 Rowan",
			Students: []formats.RegisterStudent{{ID: "u1", Name: "Noor Haddad"}, {ID: "u2", Name: "Kenji Mori"}},
		}}
	if fmt.Sprint(r.Classes) != fmt.Sprint(want) {
		t.Errorf("%+v", r.Classes)
	}
	problems := []formats.RegisterProblem{
		{File: "classes.csv", Row: 4, Why: "name"},
		{File: "users.csv", Row: 3, Why: "name"},
		{File: "enrollments.csv", Row: 5, Why: "student"},
		{File: "enrollments.csv", Row: 6, Why: "class"},
	}
	if !slices.Equal(r.Problems, problems) {
		t.Errorf("%+v", r.Problems)
	}
	for name, c := range map[string]struct {
		data []byte
		want refusal.Code
	}{
		"no archive":    {[]byte("sourcedId"), refusal.FileUnreadable},
		"files missing": {zipped(t, map[string]string{"classes.csv": "sourcedId,title\n"}), refusal.FileUnreadable},
		"unpacked 80 MiB": {zipped(t, map[string]string{"classes.csv": string(make([]byte, 80<<20)), "users.csv": "",
			"enrollments.csv": ""}),
			refusal.FileHuge},
	} {
		if _, err := formats.ReadRegister(c.data); refusal.Of(err) == nil || refusal.Of(err).Code != c.want {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
}
