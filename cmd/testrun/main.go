// Command testrun runs the tests of the house side by side, and says what each part took.
//
//	testrun          everything
//	testrun quick    what has to do with what changed, in a minute or so
//	testrun cluster  a PostgreSQL cluster for tests that are started by hand, until its standard input ends
package main

import (
	"context"
	"fmt"
	"io"
	"os"
	"os/signal"
	"syscall"

	"alpenglow/demo"
	"alpenglow/store/private"
	"alpenglow/store/storetest"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	var err error
	switch what := append(os.Args[1:], "all")[0]; what {
	case "all":
		err = whole(ctx)
	case "quick":
		err = quick(ctx)
	case "cluster":
		err = withCluster(ctx, func(address string) error {
			fmt.Println(address)
			_, err := io.Copy(io.Discard, os.Stdin)
			return err
		})
	default:
		err = fmt.Errorf("no %q: testrun, testrun quick or testrun cluster", what)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "testrun:", err)
		os.Exit(1)
	}
}

// withCluster starts a cluster for tests, with a database called demo that others are copied from, and ends it when
// work is done with its address.
func withCluster(ctx context.Context, work func(address string) error) error {
	dir, err := os.MkdirTemp("/var/tmp", "alpenglow-test-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	cluster, err := private.Start(ctx, private.Options{Dir: dir, Fast: true})
	if err != nil {
		return err
	}
	defer cluster.Stop()
	if err := storetest.Template(ctx, cluster.URL, "demo", demo.Filled); err != nil {
		return err
	}
	return work(cluster.URL)
}
