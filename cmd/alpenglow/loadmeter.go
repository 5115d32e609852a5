package main

import (
	"bufio"
	"context"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"strconv"
	"strings"
)

// meter reads a server's own processor time and memory from its metrics.
type meter struct{ url string }

type reading struct {
	cpu    float64 // seconds
	memory int64   // bytes resident
	inUse  int64   // bytes of heap and stacks in use
}

func (m meter) read(ctx context.Context) (reading, error) {
	var r reading
	request, err := http.NewRequestWithContext(ctx, http.MethodGet, m.url+"/metrics", nil)
	if err != nil {
		return r, err
	}
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return r, err
	}
	defer response.Body.Close()
	if response.StatusCode != http.StatusOK {
		return r, fmt.Errorf("metrics: %s", response.Status)
	}
	lines := bufio.NewScanner(response.Body)
	for lines.Scan() {
		name, value, _ := strings.Cut(lines.Text(), " ")
		n, _ := strconv.ParseFloat(value, 64)
		switch name {
		case "process_cpu_seconds_total":
			r.cpu = n
		case "process_resident_memory_bytes":
			r.memory = int64(n)
		case "go_memstats_heap_inuse_bytes", "go_memstats_stack_inuse_bytes":
			r.inUse += int64(n)
		}
	}
	return r, lines.Err()
}

// tree lists a process and its children.
func tree(pid int) []string {
	if pid == 0 {
		return nil
	}
	root := strconv.Itoa(pid)
	found := []string{root}
	stats, _ := filepath.Glob("/proc/[0-9]*/stat")
	for _, path := range stats {
		if f := statFields(path); len(f) > 1 && f[1] == root {
			found = append(found, filepath.Base(filepath.Dir(path)))
		}
	}
	return found
}

// statFields gives the fields of /proc/PID/stat from the state on.
func statFields(path string) []string {
	text, err := os.ReadFile(path)
	if err != nil {
		return nil
	}
	_, rest, _ := strings.Cut(string(text), ") ")
	return strings.Fields(rest)
}

// processTreeCPU gives the processor time of a process and its children, those
// that have ended too, in seconds (proc(5): utime, stime, cutime, cstime, in
// hundredths).
func processTreeCPU(pid int) float64 {
	ticks := 0
	for i, p := range tree(pid) {
		f := statFields(filepath.Join("/proc", p, "stat"))
		last := 13
		if i == 0 {
			last = 15
		}
		for _, at := range []int{11, 12, 13, 14} {
			if at < last && at < len(f) {
				n, _ := strconv.Atoi(f[at])
				ticks += n
			}
		}
	}
	return float64(ticks) / 100
}

// processTreeMemory gives the memory of a process and its children in bytes,
// what they share counted once for each share (proc(5): Pss).
func processTreeMemory(pid int) int64 {
	var total int64
	for _, p := range tree(pid) {
		text, err := os.ReadFile(filepath.Join("/proc", p, "smaps_rollup"))
		if err != nil {
			continue
		}
		for line := range strings.Lines(string(text)) {
			if rest, ok := strings.CutPrefix(line, "Pss:"); ok {
				n, _ := strconv.ParseInt(strings.Fields(rest)[0], 10, 64)
				total += n << 10
			}
		}
	}
	return total
}
