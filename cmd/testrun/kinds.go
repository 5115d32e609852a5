package main

import (
	"context"
	"fmt"
	"os/exec"
	"strings"
)

// words takes a command apart. None of these has a blank in one of its words.
func words(command string) []string { return strings.Fields(command) }

// calm is a part that gives way to the browser, in which people are waited for.
func calm(name, dir, args string, more ...string) *part {
	return &part{name: name, dir: dir, args: append(words("nice -n 10 "+args), more...)}
}

// compiling is a part that compiles or reads much Go. With more room for garbage that takes a third less time.
func compiling(name, args string, more ...string) *part {
	return calm(name, ".", args, more...).with("GOGC=800")
}

// goTest tests packages. What vet has to say is said by another part.
func goTest(name, args string, packages ...string) *part {
	return &part{name: name, dir: ".", read: goTests,
		args: append(words("go test -json -count 1 -vet=off -timeout 20m "+args), packages...)}
}

// unit tests TypeScript without a browser. It does not give way: its processes give each other up after a minute.
func unit(args string, files ...string) *part {
	return &part{name: "unit tests", dir: "ui", read: unitTests,
		args: append(words("npx vitest "+args+" --reporter=json"), files...)}
}

// browser tests screens.
func browser(args ...string) *part {
	const report = "results.json"
	p := &part{name: "browser", dir: "e2e", results: report, read: playwrightTests,
		args: append(words("npx playwright test --reporter=list,json"), args...)}
	return p.with("PLAYWRIGHT_JSON_OUTPUT_NAME=" + report).needing("program")
}

// needing says what has to come out well before this begins.
func (p *part) needing(names ...string) *part {
	p.needs = append(p.needs, names...)
	return p
}

// following says what has to be over before this begins: that costs the machine enough.
func (p *part) following(names ...string) *part {
	p.follows = append(p.follows, names...)
	return p
}

// with adds to what the command finds in its environment.
func (p *part) with(env ...string) *part {
	p.env = append(p.env, env...)
	return p
}

// oxlint looks for what TypeScript should not do, oxfmt whether it is laid out as it lays it out. Each takes a second.
func oxlint() *part { return calm("oxlint", ".", "ui/node_modules/.bin/oxlint ui/src e2e") }
func oxfmt() *part  { return calm("oxfmt", ".", "ui/node_modules/.bin/oxfmt --check ui/src e2e") }

// formatted looks whether Go files are as gofmt writes them.
func formatted(files []string) *part {
	const look = `out=$(gofmt -l "$@") && test -z "$out" || { echo "$out"; exit 1; }`
	return &part{name: "gofmt", dir: ".", args: append([]string{"sh", "-c", look, "gofmt"}, files...)}
}

// list asks go list and gives its lines.
func list(ctx context.Context, args ...string) ([]string, error) {
	out, err := exec.CommandContext(ctx, "go", append(words("list"), args...)...).Output()
	if err != nil {
		return nil, fmt.Errorf("go list: %w", err)
	}
	return strings.Split(strings.TrimSpace(string(out)), "\n"), nil
}
