"""``python -m recorder``: weld a coupon that is not there, and stream or write the recording."""

from __future__ import annotations

import argparse
import os
import sys
import time
from pathlib import Path

from recorder.client import Gateway, Refused
from recorder.waveforms import MODES, Setting
from recorder.welding_day import COLUMNS, USUAL, Plan, Trouble, samples, text_of


def _span(text: str) -> tuple[float, float]:
    start, _, lasts = text.partition("+")
    return float(start), float(lasts or 1)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="recorder", description=__doc__)
    parser.add_argument("--mode", choices=MODES, default="pulsed")
    parser.add_argument("--volts", type=float, help="mean volts; a usual value of the mode otherwise")
    parser.add_argument("--amps", type=float, help="mean amps")
    parser.add_argument("--passes", type=int, default=3)
    parser.add_argument("--arc", type=float, default=20.0, metavar="S", help="seconds of arc in a pass")
    parser.add_argument("--pause", type=float, default=30.0, metavar="S", help="seconds between passes")
    parser.add_argument("--rate", type=float, default=1000.0, metavar="HZ", help="samples a second")
    parser.add_argument("--speed", type=float, default=1.0, help="times faster than real; 0: no waiting")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--drift", type=float, default=0.0, metavar="PERCENT", help="voltage drift a minute")
    parser.add_argument("--dropout", type=_span, metavar="AT+S", help="samples missing from AT for S seconds")
    parser.add_argument("--stuck", type=_span, metavar="AT+S", help="current sensor stuck")
    parser.add_argument("--saturate", type=float, metavar="A", help="highest current the sensor tells")
    parser.add_argument("--network-break", type=_span, metavar="AT+S", help="nothing gets through meanwhile")
    parser.add_argument("--write", type=Path, metavar="FILE", help="write CSV instead of streaming")
    parser.add_argument("--server", default=os.environ.get("BEAD_SERVER", "http://127.0.0.1:8727"))
    parser.add_argument("--token", default=os.environ.get("BEAD_RECORDER_TOKEN", ""))
    parser.add_argument("--coupon", help="number of the coupon, such as FB-27-C02")
    parser.add_argument("--name", default="stand-in recorder")
    return parser


def main(arguments: list[str]) -> int:
    """Run; returns the exit code."""
    options = _parser().parse_args(arguments)
    volts, amps, feed = USUAL[options.mode]
    plan = Plan(
        setting=Setting(options.mode, options.volts or volts, options.amps or amps, seed=options.seed),
        passes=options.passes,
        arc_s=options.arc,
        pause_s=options.pause,
        wire_feed_m_min=feed,
        trouble=Trouble(
            drift_percent_min=options.drift,
            dropout=options.dropout,
            stuck=options.stuck,
            saturate_a=options.saturate,
            network=options.network_break,
        ),
    )
    if options.write:
        with options.write.open("wb") as file:
            file.write((",".join(COLUMNS) + "\n").encode())
            for rows in samples(plan, options.rate):
                file.write(text_of(rows))
        return 0
    try:
        return _stream(plan, options)
    except Refused as refused:
        print(refused, file=sys.stderr)
        return 2


def _stream(plan: Plan, options: argparse.Namespace) -> int:
    gateway = Gateway(options.server, options.token)
    number = gateway.open(COLUMNS, options.coupon, options.name)
    print(f"stream {number}: {plan.passes} passes, {plan.lasts_s:.0f} s of recording", flush=True)
    begun = time.monotonic()
    broken = plan.trouble.network
    for second, rows in enumerate(samples(plan, options.rate), 1):
        gateway.put(text_of(rows))
        if broken is None or not broken[0] <= second < broken[0] + broken[1]:
            gateway.flush()
        if options.speed > 0:
            time.sleep(max(0.0, begun + second / options.speed - time.monotonic()))
    answer = gateway.close()
    print(
        f"closed: {gateway.samples} samples sent, {answer['samples']} kept, "
        f"{gateway.tries_again} times tried again",
        flush=True,
    )
    return 0


if __name__ == "__main__":
    raise SystemExit(main(sys.argv[1:]))
