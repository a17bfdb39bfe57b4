#!/usr/bin/env python3
"""A second SCPI responder, on Python's standard library alone and written from the standards: a slow multimeter
(SCPI-1999, MULTimeter) and an oscilloscope's trace. It shares no code with the stand-ins and answers as other makes
may: carriage returns, long forms, plus signs, text after its zeros.

Started with no argument; prints the port it listens on. SIM:VALUE sets what it measures, SIM:HUSH lets it fall silent.
"""

import socketserver
import struct
import sys
import time

FUNCTIONS = {"VOLT": "VOLT:DC", "VOLT:DC": "VOLT:DC", "VOLT:AC": "VOLT:AC", "RES": "RES", "DIOD": "DIOD"}
state = {"function": "VOLT:DC", "range": None, "value": 0.0, "errors": [], "hush": False, "real": False, "points": 100, "time": 0.01}


def short(header):
    words = {"CONFIGURE": "CONF", "FUNCTION": "FUNC", "VOLTAGE": "VOLT", "RESISTANCE": "RES", "DIODE": "DIOD", "SYSTEM": "SYST",
             "ERROR": "ERR", "SENSE": "SENS", "SWEEP": "SWE", "POINTS": "POIN", "TINTERVAL": "TINT", "INITIATE": "INIT", "FORMAT": "FORM",
             "TRACE": "TRAC"}
    return ":".join(words.get(part, part) for part in header.upper().strip(":").split(":"))


def error(number, text):
    state["errors"].append('%+d,"%s"' % (number, text))


def run(header, rest):
    """One unit; what it answers, or None."""
    query = header.endswith("?")
    name = short(header.rstrip("?"))
    if name.startswith("SENS:"):
        name = name[5:]
    if name == "*IDN":
        return "ELSEWHERE,MODEL 2,SN0007,1.0.3"
    if name == "*OPC" and query:
        return "1"
    if name == "SYST:ERR" and query:
        return state["errors"].pop(0) if state["errors"] else '+0,"No error"'
    if name == "FUNC" and query:
        return '"%s"' % state["function"]
    if name == "READ" and query:
        time.sleep(0.05)
        over = state["range"] is not None and abs(state["value"]) > state["range"]
        return "%+.8E" % (9.9e37 if over else state["value"])
    if name.startswith("CONF:") and not query:
        function = FUNCTIONS.get(name[5:])
        if function is None:
            return error(-113, "Undefined header")
        if function == "DIOD" and rest:
            return error(-108, "Parameter not allowed")
        state["range"] = float(rest) if rest and rest.upper() != "AUTO" else None
        state["function"] = function
        return None
    if name == "FORM":
        state["real"] = rest.upper().replace(" ", "") in ("REAL,32", "REAL")
        return None
    if name == "SWE:TIME" and not query:
        state["time"] = float(rest)
        return None
    if name == "SWE:POIN" and not query:
        state["points"] = int(float(rest))
        return None
    if name == "SWE:TINT" and query:
        return "%.6E" % (state["time"] / state["points"])
    if name == "INIT":
        return None
    if name == "TRAC" and query:
        channel = {"CH1": 1.0, "CH2": 2.0}.get(rest.upper())
        if channel is None:
            return error(-224, "Illegal parameter value")
        values = [channel * (i % 10) for i in range(state["points"])]
        if not state["real"]:
            return ",".join("%+.6E" % v for v in values)
        body = struct.pack(">%df" % len(values), *values)
        # A length written wider than it need be is as good.
        return b"#8" + (b"%08d" % len(body)) + body
    if name == "SIM:VALUE":
        state["value"] = float(rest)
        return None
    if name == "SIM:HUSH":
        state["hush"] = True
        return None
    return error(-113, "Undefined header")


class Line(socketserver.StreamRequestHandler):
    def handle(self):
        for line in self.rfile:
            answers, path = [], ""
            for unit in line.decode("latin-1").strip().split(";"):
                unit = unit.strip()
                if not unit:
                    continue
                header, _, rest = unit.partition(" ")
                if not header.startswith((":", "*")):
                    header = path + header
                if not header.startswith("*"):
                    path = header.lstrip(":")
                    path = path[: path.rfind(":") + 1]
                answer = run(header, rest.strip())
                if answer is not None:
                    answers.append(answer if isinstance(answer, bytes) else answer.encode("latin-1"))
            if answers and not state["hush"]:
                self.wfile.write(b";".join(answers) + b"\r\n")


class Server(socketserver.ThreadingTCPServer):
    allow_reuse_address = True
    daemon_threads = True


if __name__ == "__main__":
    with Server(("127.0.0.1", 0), Line) as server:
        print(server.server_address[1])
        sys.stdout.flush()
        server.serve_forever()
