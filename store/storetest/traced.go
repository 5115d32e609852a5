package storetest

import (
	"context"
	"regexp"
	"strings"
	"sync"
	"testing"

	"alpenglow/store"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/stdlib"
)

// Trace notes every statement that a store sends, with the plan by which
// PostgreSQL carried it out.
type Trace struct {
	mu    sync.Mutex
	plans []string
}

// Traced connects to a database whose tables are up to date, and notes what is asked.
func Traced(t testing.TB, url string) (*store.Store, *Trace) {
	t.Helper()
	config, err := pgx.ParseConfig(url)
	if err != nil {
		t.Fatal(err)
	}
	for name, value := range map[string]string{"session_preload_libraries": "auto_explain",
		"auto_explain.log_min_duration": "0",
		"auto_explain.log_level":        "notice", "client_min_messages": "notice"} {
		config.RuntimeParams[name] = value
	}
	trace := &Trace{}
	config.OnNotice = func(_ *pgconn.PgConn, n *pgconn.Notice) {
		if strings.Contains(n.Message, "plan:") {
			trace.mu.Lock()
			defer trace.mu.Unlock()
			trace.plans = append(trace.plans, n.Message)
		}
	}
	s, err := store.Open(context.Background(), stdlib.RegisterConnConfig(config))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	return s, trace
}

// Take gives the plans of the statements since the last time.
func (t *Trace) Take() []string {
	t.mu.Lock()
	defer t.mu.Unlock()
	plans := t.plans
	t.plans = nil
	return plans
}

var fromEndToEnd = regexp.MustCompile(`Seq Scan on (log|marks|participants|activity|sheets)\b`)

// EndToEnd gives the first of the plans that reads a large table from end to end.
func EndToEnd(plans []string) string {
	for _, p := range plans {
		if fromEndToEnd.MatchString(p) {
			return p
		}
	}
	return ""
}
