package main

import (
	"context"
	"os/exec"
	"slices"
	"strings"

	"alpenglow/store/storetest"
)

// raced are the packages in which much goes on at once: they are tested with the race detector. Of the routes, those of
// their tests are in which many come at once.
var raced = words("alpenglow/live alpenglow/store")

const atOnce = "AtOnce|Outputs|Guess|Flood|Intake|Realtime|Connections|Judging|Fronts|Sessions"

// whole runs all that there is. What is not the browser's gives way to it.
func whole(ctx context.Context) error {
	files, err := exec.CommandContext(ctx, "git", "ls-files", "*.go").Output()
	if err != nil {
		return err
	}
	packages, err := list(ctx, "./...")
	if err != nil {
		return err
	}
	plain := slices.DeleteFunc(packages, func(p string) bool { return p == "alpenglow/web" || slices.Contains(raced, p) })
	parts := []*part{
		{name: "interface", dir: "ui", args: words("npm run build")},
		compiling("program", "interface", "go build -o bin/alpenglow ./cmd/alpenglow"),
		// How long an answer takes is measured, with much room: beside it is only what gives way.
		{name: "attacks", needs: after("program"), args: words("bin/alpenglow attacks -lasts 2s -slowest 3s -grown 256")},
		browser("attacks"),

		compiling("go vet", "program", "go vet ./..."),
		compiling("raced packages", "go vet", "go build -race alpenglow/web "+strings.Join(raced, " ")),
		compiling("staticcheck", "raced packages", "go tool staticcheck ./..."),
		goTest("go", "staticcheck", plain...),
		goTest("routes", "go", "-skip", atOnce, "alpenglow/web"),
		goTest("routes, raced", "routes", "-race", "-run", atOnce, "alpenglow/web"),
		goTest("lessons, raced", "routes, raced", append(words("-race"), raced...)...).with("ATTACK_STEPS=5000"),
		goTest("attack", "lessons, raced", "-run", "^TestAttack$", "alpenglow/live").with("ATTACK_STEPS=25000"),

		calm("eslint", "ui", "", words("npx eslint src")...),
		calm("prettier", "ui", "eslint", words("npx prettier --check src ../e2e/**/*.ts")...),
		calm("imports", "ui", "prettier", words("npx depcruise src --config .dependency-cruiser.json")...),
		calm("types of tests", "e2e", "imports", words("npx tsc --noEmit")...),
		unit("unit tests", "types of tests", words("npx vitest run --reporter=json")...),
		calm("fonts", "ui", "unit tests", words("sha256sum --check --quiet ../core/letters/fonts/SHA256SUMS")...),
		formatted(strings.Fields(string(files))),
		calm("faults", ".", "staticcheck", words("bin/alpenglow faults -classes 3 -students 10 -times 2 -down 3s")...),
	}
	return withCluster(ctx, func(address string) error { return run(ctx, parts, storetest.Shared+"="+address) })
}
