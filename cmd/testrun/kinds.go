package main

import (
	"context"
	"fmt"
	"os/exec"
	"strings"
)

// words takes a command apart. None of these has a blank in one of its words.
func words(command string) []string { return strings.Fields(command) }

// after is what a part needs: one other, or none.
func after(name string) []string {
	if name == "" {
		return nil
	}
	return []string{name}
}

// calm is a part that gives way to the browser, in which people are waited for.
func calm(name, dir, needs string, args ...string) *part {
	return &part{name: name, dir: dir, needs: after(needs), args: append(words("nice -n 10"), args...)}
}

// compiling is a part that compiles or reads much Go. With more room for garbage that takes a third less time.
func compiling(name, needs, command string) *part {
	return calm(name, ".", needs, words(command)...).with("GOGC=800")
}

// with adds to what the command finds in its environment.
func (p *part) with(env ...string) *part {
	p.env = append(p.env, env...)
	return p
}

// goTest tests packages. What vet has to say is said by another part.
func goTest(name, needs string, args ...string) *part {
	p := calm(name, ".", needs, append(words("go test -json -count 1 -vet=off -timeout 20m"), args...)...)
	p.read = goTests
	return p
}

// unit tests TypeScript without a browser.
func unit(name, needs string, args ...string) *part {
	p := calm(name, "ui", needs, args...)
	p.read = unitTests
	return p
}

// browser tests screens.
func browser(needs string, args ...string) *part {
	const report = "results.json"
	return &part{name: "browser", dir: "e2e", needs: after(needs), results: report, read: playwrightTests,
		args: append(words("npx playwright test --reporter=list,json"), args...),
		env:  []string{"PLAYWRIGHT_JSON_OUTPUT_NAME=" + report}}
}

// formatted looks whether Go files are as gofmt writes them.
func formatted(files []string) *part {
	return calm("gofmt", ".", "", append([]string{"sh", "-c", `out=$(gofmt -l "$@") && test -z "$out" || { echo "$out"; exit 1; }`, "gofmt"},
		files...)...)
}

// list asks go list and gives its lines.
func list(ctx context.Context, args ...string) ([]string, error) {
	out, err := exec.CommandContext(ctx, "go", append(words("list"), args...)...).Output()
	if err != nil {
		return nil, fmt.Errorf("go list: %w", err)
	}
	return strings.Split(strings.TrimSpace(string(out)), "\n"), nil
}
