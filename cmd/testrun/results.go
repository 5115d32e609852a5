package main

import (
	"bufio"
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"
)

// test is one test, as its runner told of it.
type test struct {
	name            string
	took            time.Duration
	failed, skipped bool
	output          string
}

// slowest is how many tests are named at the end.
const slowest = 10

// report prints what each part took, and which tests took longest.
func report(parts []*part) {
	fmt.Printf("\n%-22s %10s %10s %7s\n", "part", "took", "processor", "tests")
	var all []test
	for _, p := range parts {
		if p.skipped {
			fmt.Printf("%-22s %10s\n", p.name, "not begun")
			continue
		}
		ran := slices.DeleteFunc(slices.Clone(p.tests), func(t test) bool { return t.skipped })
		all = append(all, ran...)
		fmt.Printf("%-22s %10s %10s %7d\n", p.name, spent(p.took), spent(p.processor), len(ran))
	}
	slices.SortFunc(all, func(a, b test) int { return cmp.Compare(b.took, a.took) })
	fmt.Printf("\n%d tests; the slowest of them:\n", len(all))
	for _, t := range all[:min(slowest, len(all))] {
		fmt.Printf("%8s  %s\n", spent(t.took), t.name)
	}
	fmt.Println()
}

// goTests reads what go test -json writes: a line of JSON for each thing that happened (go doc test2json). What is
// written by a test that passes is left out; a package that fails without a test of its own is one.
func goTests(output []byte) ([]test, error) {
	said := map[string]*strings.Builder{}
	var tests []test
	lines := bufio.NewReader(bytes.NewReader(output))
	for {
		line, err := lines.ReadBytes('\n')
		if len(line) > 0 {
			var e struct {
				Action, Package, ImportPath, Test, Output string
				Elapsed                                   float64
			}
			if json.Unmarshal(line, &e) != nil {
				continue
			}
			name := strings.TrimPrefix(cmp.Or(e.Package, e.ImportPath), "alpenglow/")
			// What a part of a test writes is told with the test.
			root, _, part := strings.Cut(e.Test, "/")
			if root != "" {
				name += " " + root
			}
			if said[name] == nil {
				said[name] = &strings.Builder{}
			}
			said[name].WriteString(e.Output)
			over := e.Action == "pass" || e.Action == "fail" || e.Action == "skip"
			if !over || part || root == "" && e.Action != "fail" {
				continue
			}
			t := test{name: name, took: time.Duration(e.Elapsed * float64(time.Second)), failed: e.Action == "fail",
				skipped: e.Action == "skip"}
			if t.failed {
				t.output = said[name].String()
			}
			tests = append(tests, t)
		}
		if err == io.EOF {
			return tests, nil
		}
	}
}

// playwrightTests reads the report of Playwright's JSON reporter.
func playwrightTests(output []byte) ([]test, error) {
	type suite struct {
		Title  string
		Suites []suite
		Specs  []struct {
			Title string
			Tests []struct {
				Status  string
				Results []struct {
					Duration float64 // in milliseconds
					Errors   []struct{ Message string }
				}
			}
		}
	}
	var report struct {
		Suites []suite
		Errors []struct{ Message string }
	}
	if err := json.Unmarshal(output, &report); err != nil {
		return nil, fmt.Errorf("read the browser's report: %w", err)
	}
	var tests []test
	for _, e := range report.Errors {
		tests = append(tests, test{name: "the browser's tests", failed: true, output: e.Message})
	}
	var walk func(file string, s suite)
	walk = func(file string, s suite) {
		for _, spec := range s.Specs {
			for _, run := range spec.Tests {
				t := test{name: file + " " + spec.Title, failed: run.Status == "unexpected", skipped: run.Status == "skipped"}
				for _, r := range run.Results {
					t.took += time.Duration(r.Duration * float64(time.Millisecond))
					for _, e := range r.Errors {
						t.output += e.Message + "\n"
					}
				}
				tests = append(tests, t)
			}
		}
		for _, inner := range s.Suites {
			walk(file, inner)
		}
	}
	for _, s := range report.Suites {
		walk(s.Title, s)
	}
	return tests, nil
}

// unitTests reads the report of vitest's JSON reporter.
func unitTests(output []byte) ([]test, error) {
	var report struct {
		TestResults []struct {
			Name, Message    string
			Status           string
			AssertionResults []struct {
				Title, Status   string
				Duration        float64 // in milliseconds
				FailureMessages []string
			}
		}
	}
	if err := json.Unmarshal(output, &report); err != nil {
		return nil, fmt.Errorf("read the report of the interface's tests: %w", err)
	}
	var tests []test
	for _, file := range report.TestResults {
		_, name, _ := strings.Cut(file.Name, "/ui/src/")
		if file.Status == "failed" && len(file.AssertionResults) == 0 {
			tests = append(tests, test{name: name, failed: true, output: file.Message})
		}
		for _, a := range file.AssertionResults {
			tests = append(tests, test{name: name + " " + a.Title, failed: a.Status == "failed",
				skipped: a.Status != "failed" && a.Status != "passed",
				took:    time.Duration(a.Duration * float64(time.Millisecond)),
				output:  strings.Join(a.FailureMessages, "\n")})
		}
	}
	return tests, nil
}
