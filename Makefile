# The house's commands. See README.md.
.PHONY: demo test bench faults build types lint screenshots tools

# Where much goes on at once; it is tested with the race detector. Of the routes, those of their tests are in which many
# come at once.
RACED = ./live ./store
AT_ONCE = AtOnce|Outputs|Guess|Flood|Intake|Realtime|Connections|Judging|Fronts|Sessions

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

test: lint build e2e/node_modules ## all tests: Go's, with the race detector where more than one thing goes on, and the browser's
	scripts/tools.sh chromium-headless-shell
	scripts/tools.sh poppler-utils
	scripts/tools.sh fonts-droid-fallback
	scripts/tools.sh fonts-noto-color-emoji
	go test -timeout 20m $(filter-out $(shell go list $(RACED)),$(shell go list ./...))
	ATTACK_STEPS=5000 go test -race -timeout 20m $(RACED)
	go test -race -timeout 20m -run '$(AT_ONCE)' ./web
	ATTACK_STEPS=25000 go test -count 1 -timeout 20m -run 'TestAttack$$' ./live
	bin/alpenglow faults -classes 3 -students 10 -times 2 -down 3s
	bin/alpenglow attacks -lasts 2s -slowest 3s -grown 256
	cd e2e && npx tsc --noEmit && npx playwright test

lint: ui/node_modules
	@test -z "$$(gofmt -l $$(git ls-files '*.go'))" || (gofmt -l $$(git ls-files '*.go'); echo "run gofmt -w"; exit 1)
	go vet ./...
	go tool staticcheck ./...
	cd ui && sha256sum --check --quiet ../core/letters/fonts/SHA256SUMS # else run scripts/fonts.sh
	cd ui && npm run lint

faults: build ## classes at work while the server is killed, the database stopped, connections cut
	bin/alpenglow faults

types: ## write the interface's types and its inks and tints from the Go structs
	go run ./web/wiretypes

bench: build e2e/node_modules ## Go benchmarks, a full frame in the browser, a running server under the load of whole classes
	go test -run xxx -bench . ./core/... ./store ./pdf
	STEPS=1000000 go test -count 1 -timeout 30m -run TestProperties ./core/sheet
	-bin/alpenglow attacks
	ATTACK_STEPS=1000000 go test -timeout 2h -count 1 -run 'TestAttack$$' -v ./live
	scripts/tools.sh chromium-headless-shell
	ATTACK_STEPS=1000000 go test -race -timeout 90m -run TestAttack -v ./live
	cd e2e && npx playwright test -c frames.config.ts && npx playwright test -c monitor.config.ts
	scripts/bench.sh

screenshots: build e2e/node_modules ## take the pictures in docs/screenshots anew
	scripts/tools.sh chromium-headless-shell
	cd e2e && npx playwright test -c screenshots.config.ts
