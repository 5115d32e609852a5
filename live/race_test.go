//go:build race

package live

const underRace = true
