"""Time POST /api/evaluate against an endpoint that does nothing, on one running server, in one run.

Usage: .venv/bin/python scripts/benchmark_evaluate.py [http://127.0.0.1:8427] [rounds]
Prints medians in milliseconds and their ratio. Bars: at most 15 ms, at most 5 times the empty
endpoint; with eight meats, with twenty lines of a mix, and with the dearest shapes, at most 20 ms.
"""

from __future__ import annotations

import http.client
import json
import statistics
import sys
import time
from urllib.parse import urlsplit


def timed(connection: http.client.HTTPConnection, method: str, path: str, body: bytes | None) -> float:
    """Milliseconds of one request on an open connection."""
    began = time.perf_counter()
    headers = {"Content-Type": "application/json"} if body else {}
    connection.request(method, path, body, headers)
    answer = connection.getresponse()
    answer.read()
    if answer.status != 200:
        raise SystemExit(f"{path} answered {answer.status}")
    return (time.perf_counter() - began) * 1000


def main() -> int:
    """Alternate the two requests, so that both see the same machine."""
    base = urlsplit(sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8427")
    rounds = int(sys.argv[2]) if len(sys.argv) > 2 else 300
    connection = http.client.HTTPConnection(base.hostname or "127.0.0.1", base.port, timeout=10)
    connection.request("GET", "/api/formulas")
    shelf = json.loads(connection.getresponse().read())
    connection.request("GET", f"/api/formulas/{shelf[0]['id']}")
    formula = json.loads(connection.getresponse().read())["formula"]
    eight = ("chuck", "rib", "round", "trim-50", "brisket-point", "short-rib-plate", "sirloin", "shank")
    wide = {**formula, "parts": [{"meat": m, "share_frac": 0.125, "locked": False, "lot": ""} for m in eight]}
    wide_body = json.dumps({"formula": wide, "edits": []}).encode()
    connection.request("GET", "/api/catalogue")
    pantry = json.loads(connection.getresponse().read())["pantry"]
    twenty = [i["key"] for i in pantry if i["group"] != "salt"][::4][:20]
    lines = [{"ingredient": key, "per_meat_frac": 0.02} for key in twenty]
    full = {**formula, "mix": {**formula["mix"], "lines": lines}}
    full_body = json.dumps({"formula": full, "edits": []}).encode()
    body = json.dumps({"formula": formula, "edits": [{"kind": "nudge", "figure": "guests", "steps": 1}]}).encode()
    # The dearest shapes: a filled burger whose wanted cooked size is worked back, and a filled loaf.
    filled = [
        {"kind": "choose", "field": "style", "key": "filled-burger"},
        {"kind": "set", "figure": "cooked_diameter", "value": 100},
    ]
    filled_body = json.dumps({"formula": formula, "edits": filled}).encode()
    loaf = [{"kind": "choose", "field": "style", "key": "loaf-filled"}]
    loaf_body = json.dumps({"formula": formula, "edits": loaf}).encode()
    # Twenty lines again, with four things beside them and ten layers: at most 1.3 times what it is without.
    roles = (
        ("burger-sauce", "mayonnaise"),
        ("pickle", "dill-pickle"),
        ("soft-onions", "soft-onion"),
        ("topping", "crisp-bacon"),
    )
    beside = [{"role": role, "ingredient": key, "dose_g": 20.0} for role, key in roles]
    kinds = ("heel", "sauce", "leaf", "patty", "cheese", "patty", "onion", "pickle", "tomato", "crown")
    laid = {**full, "beside": beside, "stack": [{"kind": kind} for kind in kinds]}
    laid_body = json.dumps({"formula": laid, "edits": []}).encode()
    for _ in range(20):
        timed(connection, "GET", "/api/live", None)
        timed(connection, "POST", "/api/evaluate", body)
    nothing, work, widest, fullest, fills, loaves, built = [], [], [], [], [], [], []
    for _ in range(rounds):
        nothing.append(timed(connection, "GET", "/api/live", None))
        work.append(timed(connection, "POST", "/api/evaluate", body))
        widest.append(timed(connection, "POST", "/api/evaluate", wide_body))
        fullest.append(timed(connection, "POST", "/api/evaluate", full_body))
        built.append(timed(connection, "POST", "/api/evaluate", laid_body))
        fills.append(timed(connection, "POST", "/api/evaluate", filled_body))
        loaves.append(timed(connection, "POST", "/api/evaluate", loaf_body))
    low, high = statistics.median(nothing), statistics.median(work)
    tail = statistics.quantiles(work, n=20)[-1]
    print(f"nothing  median {low:.2f} ms")
    print(f"evaluate median {high:.2f} ms, 95th percentile {tail:.2f} ms, {rounds} rounds")
    print(f"ratio    {high / low:.1f}")
    print(f"with eight meats median {statistics.median(widest):.2f} ms")
    print(f"with {len(lines)} lines median {statistics.median(fullest):.2f} ms")
    print(
        f"with {len(lines)} lines, {len(beside)} things beside and {len(kinds)} layers median "
        f"{statistics.median(built):.2f} ms, {statistics.median(built) / statistics.median(fullest):.2f} times without"
    )
    print(f"filled burger, cooked size worked back, median {statistics.median(fills):.2f} ms")
    print(f"filled loaf median {statistics.median(loaves):.2f} ms")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
