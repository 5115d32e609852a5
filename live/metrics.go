package live

import (
	"time"

	"alpenglow/store"

	"github.com/centrifugal/centrifuge"
	"github.com/prometheus/client_golang/prometheus"
)

// metrics counts without ever naming a person or what they wrote.
type metrics struct {
	savedOps  prometheus.Counter
	refused   *prometheus.CounterVec
	conflicts prometheus.Counter
	took      prometheus.Histogram
	statement prometheus.Histogram
	group     prometheus.Histogram
	failed    prometheus.Counter
	panics    *prometheus.CounterVec
	untold    prometheus.Counter
}

func newMetrics(registry prometheus.Registerer, node *centrifuge.Node) *metrics {
	fast := prometheus.ExponentialBuckets(0.001, 2, 13)
	m := &metrics{
		savedOps: prometheus.NewCounter(prometheus.CounterOpts{Name: "alpenglow_operations_saved_total",
			Help: "Operations saved."}),
		refused: prometheus.NewCounterVec(prometheus.CounterOpts{Name: "alpenglow_operations_refused_total",
			Help: "Operations refused, by reason."}, []string{"reason"}),
		conflicts: prometheus.NewCounter(prometheus.CounterOpts{Name: "alpenglow_commit_conflicts_total",
			Help: "Groups for a sheet that another server had moved on."}),
		took: prometheus.NewHistogram(prometheus.HistogramOpts{Name: "alpenglow_operation_seconds",
			Help: "From receiving an operation to its acknowledgement.", Buckets: fast}),
		statement: prometheus.NewHistogram(prometheus.HistogramOpts{Name: "alpenglow_commit_seconds",
			Help: "Time of one commit statement.", Buckets: fast}),
		group: prometheus.NewHistogram(prometheus.HistogramOpts{Name: "alpenglow_commit_operations",
			Help: "Operations in one commit statement.", Buckets: prometheus.ExponentialBuckets(1, 2, 10)}),
		failed: prometheus.NewCounter(prometheus.CounterOpts{Name: "alpenglow_commit_failures_total",
			Help: "Commit statements that failed."}),
	}
	m.panics = prometheus.NewCounterVec(prometheus.CounterOpts{Name: "alpenglow_panics_total",
		Help: "Bugs that cost one piece of work, by where."}, []string{"in"})
	m.untold = prometheus.NewCounter(prometheus.CounterOpts{Name: "alpenglow_news_left_out_total",
		Help: "News that was not told because too much waited; clients ask for it."})
	connections := prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: "alpenglow_connections",
		Help: "Open realtime connections."},
		func() float64 { return float64(node.Hub().NumClients()) })
	registry.MustRegister(m.savedOps, m.refused, m.conflicts, m.took, m.statement, m.group, m.failed, m.panics,
		m.untold, connections)
	return m
}

func (m *metrics) saved(took time.Duration) {
	m.savedOps.Inc()
	m.took.Observe(took.Seconds())
}

func (m *metrics) commit(batches []store.Batch, took time.Duration, err error) {
	if err != nil {
		m.failed.Inc()
		return
	}
	n := 0
	for _, b := range batches {
		n += len(b.Changes)
	}
	m.statement.Observe(took.Seconds())
	m.group.Observe(float64(n))
}
