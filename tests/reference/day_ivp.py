"""A battery's day integrated by scipy's solve_ivp (LSODA): the laws as docs/method.md states them, written anew.

Reads the JSON file it is given, writes one object on standard output: charge, head and volts at the end of each part, and when the posts
fall below the threshold in the last part."""
import json
import sys

import numpy as np
from scipy.integrate import solve_ivp
from scipy.optimize import least_squares


def day(d):
    heads, open_V, ohm = (np.array(d[k]) for k in ("head", "open_V", "ohm"))
    most1, most2, c, k = d["most1_Ah"], d["most2_Ah"], d["c"], d["k"]

    def volts_and_amps(y, watts, loop):
        head = min(max(y[0] / most1, 0), 1)
        inner = np.interp(head, heads, ohm)
        emf = np.interp(head, heads, open_V) - y[2] - y[3]
        r = inner + loop
        amps = (emf - np.sqrt(emf * emf - 4 * r * watts)) / (2 * r)
        return emf - inner * amps, amps

    def slope(watts, loop):
        def f(_, y):
            _, amps = volts_and_amps(y, watts, loop)
            flow = k * (y[1] / (1 - c) - y[0] / c) if c < 1 else 0.0
            return [(-amps + flow) / 3600, -flow / 3600,
                    (amps * d["rc1_ohm"] - y[2]) / d["rc1_s"], (amps * d["rc2_ohm"] - y[3]) / d["rc2_s"]]
        return f

    y = [d["q1_Ah"], d["q2_Ah"], 0.0, 0.0]
    ends, crosses = [], None
    for n, part in enumerate(d["parts"]):
        watts, loop = part["watts"], part["loop_ohm"]
        events = None
        if n + 1 == len(d["parts"]):
            def below(_, y, w=watts, l=loop):
                return volts_and_amps(y, w, l)[0] - d["threshold_V"]
            below.direction = -1
            events = below
        run = solve_ivp(slope(watts, loop), (0, part["length_s"]), y, method="LSODA", rtol=1e-9, atol=1e-9, events=events)
        y = run.y[:, -1]
        ends.append({"charge": (y[0] + y[1]) / (most1 + most2), "volts": volts_and_amps(y, watts, loop)[0]})
        if events and len(run.t_events[0]):
            crosses = float(run.t_events[0][0])
    return {"ends": ends, "crosses_s": crosses}


def fit(d):
    """Volts as a straight line in charge given and amps, by scipy's least squares with the doubt of its Jacobian."""
    q, amps, volts = (np.array(d[k]) for k in ("given_Ah", "amps", "volts"))
    got = least_squares(lambda x: x[0] - x[1] * q - x[2] * amps - volts, [12.0, 0.01, 0.01], xtol=1e-15, ftol=1e-15, gtol=1e-15)
    variance = 2 * got.cost / (len(q) - 3)
    spread = np.sqrt(np.diag(np.linalg.inv(got.jac.T @ got.jac) * variance))
    return {"ohm": got.x[2], "doubt_ohm": spread[2]}


with open(sys.argv[1], encoding="utf-8") as file:
    asked = json.load(file)
json.dump(fit(asked) if "given_Ah" in asked else day(asked), sys.stdout)
