package main

import (
	"context"
	"fmt"
	"maps"
	"os"
	"os/exec"
	"path"
	"path/filepath"
	"slices"
	"strings"

	"alpenglow/store/storetest"
)

// quick looks at what changed since the last commit, or, where nothing did, in it: its form, all tests of what it is
// part of, those of what imports that which do not take long; and one lesson in the browser.
func quick(ctx context.Context) error {
	files, err := changed(ctx)
	if err != nil {
		return err
	}
	touched := map[string]bool{}
	for _, file := range files {
		if dir := packageOf(file); dir != "" {
			touched[dir] = true
		}
	}
	own, importing, err := affected(ctx, touched)
	if err != nil {
		return err
	}
	var screens []string
	for _, file := range files {
		if rest, ok := strings.CutPrefix(file, "ui/"); ok && scripted(file) {
			screens = append(screens, rest)
		}
	}

	parts := []*part{
		{name: "interface", args: words("make --silent ui/dist/index.html")}, // where something of it changed
		compiling("program", "go build -o bin/alpenglow ./cmd/alpenglow").needing("interface"),
		browser("smoke"),
	}
	if len(touched) > 0 {
		dirs := strings.Join(slices.Sorted(maps.Keys(touched)), " ")
		parts = append(parts, formatted(only(files, ".go")), compiling("go vet", "go vet "+dirs),
			compiling("staticcheck", "go tool staticcheck "+dirs).following("go vet"),
			goTest("touched", "", own...))
		if len(importing) > 0 {
			parts = append(parts, goTest("importing", "-short", importing...).following("touched"))
		}
	}
	if slices.ContainsFunc(files, scripted) {
		parts = append(parts, oxlint(), oxfmt(),
			calm("types of tests", "e2e", "npx tsc --noEmit").following("interface"))
	}
	if len(screens) > 0 {
		parts = append(parts, unit("related --run --passWithNoTests", screens...).following("interface"))
	}
	return withCluster(ctx, func(address string) error { return run(ctx, parts, storetest.Shared+"="+address) })
}

// changed gives the files that differ from the last commit, new ones too, and are there; or, where none does, those of
// that commit.
func changed(ctx context.Context) ([]string, error) {
	ask := func(command string) ([]string, error) {
		out, err := exec.CommandContext(ctx, "git", words(command)...).Output()
		if err != nil {
			return nil, fmt.Errorf("git %s: %w", command, err)
		}
		return slices.DeleteFunc(strings.Fields(string(out)), func(f string) bool {
			_, err := os.Stat(f)
			return err != nil
		}), nil
	}
	old, err := ask("diff --name-only HEAD")
	if err != nil {
		return nil, err
	}
	added, err := ask("ls-files --others --exclude-standard")
	if err != nil || len(old)+len(added) > 0 {
		return append(old, added...), err
	}
	return ask("diff --name-only HEAD~1")
}

// packageOf gives the folder of the Go package that a file is part of, also where it is read by its tests or put into
// the program; nothing for a file of none.
func packageOf(file string) string {
	for dir := path.Dir(file); dir != "."; dir = path.Dir(dir) {
		if strings.HasPrefix(dir, "ui/") || strings.HasPrefix(dir, "e2e") || strings.HasPrefix(dir, "docs") {
			continue
		}
		if found, _ := filepath.Glob(path.Join(dir, "*.go")); len(found) > 0 {
			return "./" + dir
		}
	}
	if strings.HasSuffix(file, ".go") {
		return "."
	}
	return ""
}

// affected gives the packages in these folders, and all others whose code or tests come to import them.
func affected(ctx context.Context, dirs map[string]bool) (own, importing []string, err error) {
	const form = `{{.ImportPath}};{{.Dir}};{{join .Deps " "}};{{join .TestImports " "}} {{join .XTestImports " "}}`
	lines, err := list(ctx, "-f", form, "./...")
	if err != nil {
		return nil, nil, err
	}
	here, err := os.Getwd()
	if err != nil {
		return nil, nil, err
	}
	touched, deps := map[string]bool{}, map[string][]string{}
	for _, line := range lines {
		f := strings.Split(line, ";")
		dir, err := filepath.Rel(here, f[1])
		if err != nil {
			return nil, nil, err
		}
		if dirs["./"+dir] || dir == "." && dirs["."] {
			touched[f[0]] = true
		}
		deps[f[0]] = strings.Fields(f[2])
	}
	reaches := func(names []string) bool {
		return slices.ContainsFunc(names, func(name string) bool {
			return touched[name] || slices.ContainsFunc(deps[name], func(d string) bool { return touched[d] })
		})
	}
	for _, line := range lines {
		f := strings.Split(line, ";")
		if touched[f[0]] {
			own = append(own, f[0])
		} else if reaches(append(deps[f[0]], strings.Fields(f[3])...)) {
			importing = append(importing, f[0])
		}
	}
	return own, importing, nil
}

func scripted(file string) bool {
	return strings.HasSuffix(file, ".ts") || strings.HasSuffix(file, ".tsx")
}

func only(files []string, ending string) []string {
	return slices.DeleteFunc(slices.Clone(files), func(f string) bool { return !strings.HasSuffix(f, ending) })
}
