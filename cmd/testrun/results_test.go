package main

import (
	"slices"
	"testing"
	"time"
)

// Each runner's report gives its tests by name, with their time, and what a failed one said.
func TestReports(t *testing.T) {
	const goReport = `go: some words that are no JSON
{"Action":"run","Package":"alpenglow/live","Test":"TestAttack"}
{"Action":"output","Package":"alpenglow/live","Test":"TestAttack/part","Output":"told a secret\n"}
{"Action":"fail","Package":"alpenglow/live","Test":"TestAttack/part","Elapsed":0.5}
{"Action":"fail","Package":"alpenglow/live","Test":"TestAttack","Elapsed":1.5}
{"Action":"pass","Package":"alpenglow/live","Test":"TestKnowing","Elapsed":0.25}
{"Action":"skip","Package":"alpenglow/live","Test":"TestLong","Elapsed":0}
{"Action":"fail","Package":"alpenglow/live","Elapsed":2}
{"ImportPath":"alpenglow/web","Action":"build-output","Output":"undefined: x\n"}
{"ImportPath":"alpenglow/web","Action":"build-fail"}
{"Action":"fail","Package":"alpenglow/web","Elapsed":0}
`
	const browserReport = `{"suites":[{"title":"walk.spec.ts","suites":[{"title":"inner","specs":[
		{"title":"in step","tests":[
		{"status":"unexpected","results":[{"duration":1500,"errors":[{"message":"not in step"}]}]}]}]}],
		"specs":[{"title":"by hand","tests":[{"status":"expected","results":[{"duration":250,"errors":[]}]}]},
		{"title":"later","tests":[{"status":"skipped","results":[{"duration":0}]}]}]}],
		"errors":[{"message":"no cluster"}]}`
	const unitReport = `{"testResults":[
		{"name":"/x/ui/src/wire/tests/undo.test.ts","status":"failed","message":"no such module","assertionResults":[]},
		{"name":"/x/ui/src/wire/tests/clock.test.ts","status":"failed","assertionResults":[
			{"title":"agrees","status":"failed","duration":1500,"failureMessages":["too late"]},
			{"title":"goes on","status":"passed","duration":250,"failureMessages":[]},
			{"title":"later","status":"pending","failureMessages":[]}]}]}`
	const half, quarter = 1500 * time.Millisecond, 250 * time.Millisecond
	for name, c := range map[string]struct {
		read   func([]byte) ([]test, error)
		report string
		want   []test
	}{
		"Go": {goTests, goReport, []test{
			{"live TestAttack", half, true, false, "told a secret\n"}, {"live TestKnowing", quarter, false, false, ""},
			{"live TestLong", 0, false, true, ""}, {"live", 2 * time.Second, true, false, ""},
			{"web", 0, true, false, "undefined: x\n"}}},
		"browser": {playwrightTests, browserReport, []test{{"the browser's tests", 0, true, false, "no cluster"},
			{"walk.spec.ts by hand", quarter, false, false, ""}, {"walk.spec.ts later", 0, false, true, ""},
			{"walk.spec.ts in step", half, true, false, "not in step\n"}}},
		"unit": {unitTests, unitReport, []test{{"wire/tests/undo.test.ts", 0, true, false, "no such module"},
			{"wire/tests/clock.test.ts agrees", half, true, false, "too late"},
			{"wire/tests/clock.test.ts goes on", quarter, false, false, ""},
			{"wire/tests/clock.test.ts later", 0, false, true, ""}}},
	} {
		got, err := c.read([]byte(c.report))
		if err != nil || !slices.Equal(got, c.want) {
			t.Errorf("%s: %v\n%+v\nis not\n%+v", name, err, got, c.want)
		}
	}
	for name, read := range map[string]func([]byte) ([]test, error){"browser": playwrightTests, "unit": unitTests} {
		if _, err := read([]byte("not a report")); err == nil {
			t.Errorf("%s: what is no report is read", name)
		}
	}
}

// What needs a part that failed is not begun, and the run says so; what does not need it goes on.
func TestRun(t *testing.T) {
	t.Chdir(t.TempDir())
	parts := []*part{
		{name: "bad", args: words("false")},
		{name: "after bad", needs: []string{"bad"}, args: words("true")},
		{name: "after that", needs: []string{"after bad"}, args: words("true")},
		{name: "good", args: words("true")},
		{name: "after good", needs: []string{"good"}, args: []string{"sh", "-c", `test "$SEEN" = "by all"`}},
		{name: "after all", follows: []string{"bad", "after good"}, args: words("true")},
		{name: "no tests", args: words("true"), read: goTests},
	}
	err := run(t.Context(), parts, "SEEN=by all")
	if err == nil || err.Error() != "failed, or not begun because of that: bad, after bad, after that, no tests" {
		t.Error(err)
	}
	for _, p := range parts {
		if p.skipped != (p.name == "after bad" || p.name == "after that") {
			t.Errorf("%s: skipped %v", p.name, p.skipped)
		}
	}
}

func TestPackageOf(t *testing.T) {
	t.Chdir("../..")
	for file, want := range map[string]string{
		"core/sheet/add.go": "./core/sheet", "core/ink/testdata/cuts.json": "./core/ink",
		"store/migrations/00001_first.sql": "./store", "house_test.go": ".", "ui/src/main.tsx": "./ui",
		"README.md": "", "docs/testing.md": "", "e2e/tests/smoke.spec.ts": "",
	} {
		if got := packageOf(file); got != want {
			t.Errorf("%s is part of %q, not %q", file, got, want)
		}
	}
}
