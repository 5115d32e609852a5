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

// withDetector compiles for the race detector. What is not ours is not optimised: that takes a quarter less time, and
// costs the tests little.
var withDetector = []string{"-race", "-gcflags=all=-N -l", "-gcflags=alpenglow/...="}

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
	inCore := func(p string) bool { return strings.HasPrefix(p, "alpenglow/core/") }
	core := slices.DeleteFunc(slices.Clone(packages), func(p string) bool { return !inCore(p) })
	others := slices.DeleteFunc(packages, func(p string) bool {
		return inCore(p) || p == "alpenglow/web" || slices.Contains(raced, p)
	})
	parts := []*part{
		{name: "interface", dir: "ui", args: words("npm run build")},
		compiling("program", "go build -o bin/alpenglow ./cmd/alpenglow").needing("interface"),
		// How long an answer takes is measured, with much room: beside it is only what gives way.
		(&part{name: "attacks", args: words("bin/alpenglow attacks -lasts 2s -slowest 3s -grown 256")}).needing("program"),
		browser().following("attacks"),

		// Where tests have bounds on time they come when the browser is done, one part after the other.
		goTest("others", "", others...).following("browser"),
		goTest("routes", "-skip "+atOnce, "alpenglow/web").following("others"),
		goTest("routes, raced", "-run "+atOnce, slices.Concat(withDetector, words("alpenglow/web"))...).
			following("routes", "raced packages"),
		goTest("lessons, raced", "", slices.Concat(withDetector, raced)...).
			with("ATTACK_STEPS=5000").following("routes, raced"),
		goTest("attack", "-run ^TestAttack$", "alpenglow/live").with("ATTACK_STEPS=25000").following("lessons, raced"),

		compiling("go vet", "go vet ./...").following("program"),
		compiling("raced packages", "go build", slices.Concat(withDetector, raced, words("alpenglow/web"))...).
			following("go vet"),
		compiling("staticcheck", "go tool staticcheck ./...").following("raced packages"),
		goTest("core", "", core...).following("staticcheck"),

		formatted(strings.Fields(string(files))),
		oxlint(),
		oxfmt().following("oxlint"),
		calm("types of tests", "e2e", "npx tsc --noEmit").following("oxfmt"),
		unit("run").following("types of tests"),
		calm("fonts", "ui", "sha256sum --check --quiet ../core/letters/fonts/SHA256SUMS").following("unit tests"),
		calm("faults", ".", "bin/alpenglow faults -classes 3 -students 10 -times 2 -down 3s").
			needing("program").following("fonts"),
	}
	return withCluster(ctx, func(address string) error { return run(ctx, parts, storetest.Shared+"="+address) })
}
