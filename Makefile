# The house's commands. See README.md.
.PHONY: demo test quick bench faults build types lint screenshots tools

# A format that nobody here speaks is left out of gin: its code takes as long to compile as ours.
export GOFLAGS += -tags=nomsgpack

demo: build ## run with a private database and made-up data
	bin/alpenglow demo

build: tools ui/dist/index.html
	go build -o bin/alpenglow ./cmd/alpenglow

ui/dist/index.html: ui/node_modules $(shell find ui/src ui/public ui/index.html ui/vite.config.ts -type f)
	cd ui && npm run build

ui/node_modules: ui/package-lock.json
	cd ui && npm ci --no-audit --no-fund && touch node_modules

e2e/node_modules: e2e/package-lock.json
	cd e2e && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-audit --no-fund && touch node_modules

tools: ## install what is missing from Debian's packages
	scripts/tools.sh postgresql

test: bin/testrun ## all tests, side by side, and what each part took
	bin/testrun

quick: bin/testrun ## what has to do with what changed since the last commit, and one lesson in the browser
	bin/testrun quick

.PHONY: bin/testrun
bin/testrun: ui/node_modules e2e/node_modules
	scripts/tools.sh postgresql chromium-headless-shell poppler-utils fonts-droid-fallback fonts-noto-color-emoji
	GOGC=800 go build -o bin/testrun ./cmd/testrun

lint: ui/node_modules e2e/node_modules
	@test -z "$$(gofmt -l $$(git ls-files '*.go'))" || (gofmt -l $$(git ls-files '*.go'); echo "run gofmt -w"; exit 1)
	go vet ./...
	go tool staticcheck ./...
	cd ui && sha256sum --check --quiet ../core/letters/fonts/SHA256SUMS # else run scripts/fonts.sh
	ui/node_modules/.bin/oxlint ui/src e2e
	ui/node_modules/.bin/oxfmt --check ui/src e2e

faults: build ## classes at work while the server is killed, the database stopped, connections cut
	bin/alpenglow faults

types: ## write the interface's types and its inks and tints from the Go structs
	go run ./web/wiretypes

bench: build bin/testrun ## Go benchmarks, a full frame in the browser, a running server under the load of whole classes
	go test -run xxx -bench . ./core/... ./store ./pdf
	STEPS=1000000 go test -count 1 -timeout 30m -run TestProperties ./core/sheet
	-bin/alpenglow attacks
	ATTACK_STEPS=1000000 go test -timeout 2h -count 1 -run 'TestAttack$$' -v ./live
	ATTACK_STEPS=1000000 go test -race -timeout 90m -run TestAttack -v ./live
	cd e2e && npx playwright test -c frames.config.ts && npx playwright test -c monitor.config.ts
	scripts/bench.sh

screenshots: build bin/testrun ## take the pictures in docs/screenshots anew
	cd e2e && npx playwright test -c screenshots.config.ts
