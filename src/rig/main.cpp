// SPDX-License-Identifier: GPL-3.0-or-later
// inchpeg-rig: plays a gauge or a rig on a pseudo-terminal, so that the program can be tried and tested
// without one. What it sends is described in docs/rig_protocol.md.
#include "core/units/number.h"
#include "rig/play_rig.h"
#include "rig/pseudo_terminal.h"
#include "sim/simulated_gauge.h"

#include <fmt/format.h>

#include <algorithm>
#include <iostream>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

using namespace inchpeg;
using sim::SimulatedGauge;

namespace
{

constexpr std::string_view kUsage = R"(inchpeg-rig plays a measuring gauge or a rig on a pseudo-terminal.

  inchpeg-rig calliper [options]     millimetres
  inchpeg-rig scale [options]        grams

Options
  --around X       readings scatter around X (4 mm, 9 g)
  --scatter X      with this standard deviation
  --readings A,B   sends these first
  --seed N         of the scatter
  --link PATH      makes PATH point to the pseudo-terminal

  inchpeg-rig frame|hand-gauge|pendulum|torque|oven|dial|weights [options]

Options
  --polymer NAME   of the virtual piece: glycol-modified polyester, low-heat polyester …
  --method NAME    the test it is for; told as a fact
  --strength X     of the mean piece, in N, N·m or J
  --scatter X      between pieces, a share (0.04)
  --seed N         of the pieces
  --rate HZ        readings a second
  --speedup X      the rig's time runs so much faster
  --realtime no    everything is sent as fast as it is taken
  --link PATH      makes PATH point to the pseudo-terminal

It sends and obeys what docs/rig_protocol.md says; on standard input: start, release, return, pull (the cable),
plug, garble, silence S, quit.

Gauges: the first line on standard output is the terminal's path. Then each line on standard input is a command:
an empty line or "press" sends a reading, "half" sends half of one, "pull" pulls the cable in the middle of
a reading, "plug" plugs it in again, "quit" ends.
)";

std::optional<std::vector<double>> numbersFrom(std::string_view text)
{
    std::vector<double> numbers;
    while (!text.empty()) {
        const auto comma = text.find(',');
        const std::optional<double> number = parseTypedNumber(text.substr(0, comma));
        if (!number)
            return std::nullopt;
        numbers.push_back(*number);
        text = comma == std::string_view::npos ? std::string_view() : text.substr(comma + 1);
    }
    return numbers;
}

struct Options {
    SimulatedGauge::Setup gauge;
    std::string link;
};

Result<Options> optionsFrom(const std::vector<std::string_view> &words)
{
    if (words.empty())
        return invalidArgument("say what is to be played: calliper, scale, frame, hand-gauge, pendulum, "
                               "torque, oven, dial or weights");
    Result<SimulatedGauge::Setup> usual = SimulatedGauge::usualSetup(words.front());
    if (!usual)
        return usual.error();
    Options options{std::move(*usual), {}};
    for (std::size_t i = 1; i < words.size(); i += 2) {
        if (i + 1 == words.size())
            return invalidArgument(fmt::format("{} needs a value", words[i]));
        const std::string_view value = words[i + 1];
        const std::optional<std::vector<double>> numbers = numbersFrom(value);
        if (words[i] == "--link")
            options.link = value;
        else if (!numbers || numbers->empty())
            return invalidArgument(fmt::format("{}: \"{}\" is no number", words[i], value));
        else if (words[i] == "--around")
            options.gauge.around = numbers->front();
        else if (words[i] == "--scatter")
            options.gauge.scatter = numbers->front();
        else if (words[i] == "--seed")
            options.gauge.seed = static_cast<std::uint64_t>(std::max(0.0, numbers->front()));
        else if (words[i] == "--readings")
            options.gauge.readings = *numbers;
        else
            return invalidArgument(fmt::format("{} is no option", words[i]));
    }
    return options;
}

/// Obeys the commands on standard input until it ends.
Status play(const Options &options)
{
    Result<PseudoTerminal> terminal = PseudoTerminal::open(options.link);
    if (!terminal)
        return terminal.error();
    std::cout << terminal->path() << std::endl;
    SimulatedGauge gauge(options.gauge);
    std::string command;
    while (std::getline(std::cin, command)) {
        if (command == "quit")
            break;
        if (command.empty() || command == "press") {
            terminal->send(gauge.press());
        } else if (command == "half" || command == "pull") {
            const std::string line = gauge.press();
            terminal->send(line.substr(0, line.size() / 2));
            if (command == "pull")
                terminal->pull();
        } else if (command == "plug") {
            terminal = PseudoTerminal::open(options.link);
            if (!terminal)
                return terminal.error();
            std::cout << terminal->path() << std::endl;
        } else {
            std::cerr << "inchpeg-rig: \"" << command
                      << "\" is no command; press, half, pull, plug and quit are\n";
        }
    }
    return ok();
}

} // namespace

namespace
{

struct RigOptions {
    sim::VirtualRig::Setup rig;
    PlayOptions play;
};

Result<RigOptions> rigOptionsFrom(const std::vector<std::string_view> &words)
{
    RigOptions options;
    options.rig.kind = words.front();
    for (std::size_t i = 1; i < words.size(); i += 2) {
        if (i + 1 == words.size())
            return invalidArgument(fmt::format("{} needs a value", words[i]));
        const std::string_view value = words[i + 1];
        const std::pair<std::string_view, double *> numbers[] = {{"--strength", &options.rig.strength},
                                                                 {"--scatter", &options.rig.scatter},
                                                                 {"--rate", &options.rig.rate_Hz},
                                                                 {"--speedup", &options.play.speedup}};
        const auto number = std::find_if(std::begin(numbers), std::end(numbers),
                                         [&](const auto &one) { return one.first == words[i]; });
        const std::optional<double> typed = parseTypedNumber(value);
        if (words[i] == "--link")
            options.play.link = value;
        else if (words[i] == "--polymer")
            options.rig.polymer = value;
        else if (words[i] == "--method")
            options.rig.method = value;
        else if (words[i] == "--realtime")
            options.play.isRealTime = value != "no";
        else if (words[i] == "--seed" && typed && *typed >= 0.0)
            options.rig.seed = static_cast<std::uint64_t>(*typed);
        else if (number != std::end(numbers) && typed && *typed > 0.0)
            *number->second = *typed;
        else if (number != std::end(numbers) || words[i] == "--seed")
            return invalidArgument(fmt::format("{}: \"{}\" is no number above 0", words[i], value));
        else
            return invalidArgument(fmt::format("{} is no option", words[i]));
    }
    return options;
}

/// 0, 1 where the system does not let it, 2 for options that are wrong.
int playAsRig(const std::vector<std::string_view> &words)
{
    const Result<RigOptions> options = rigOptionsFrom(words);
    const Result<sim::VirtualRig> rig =
        options ? sim::VirtualRig::make(options->rig) : Result<sim::VirtualRig>(options.error());
    const Status status = rig ? playRig(*rig, options->play) : Status(rig.error());
    if (status)
        return 0;
    std::cerr << "inchpeg-rig: " << status.error().message << "\n";
    return rig ? 1 : 2;
}

bool isRig(std::string_view word)
{
    const std::vector<std::string_view> kinds = sim::VirtualRig::kinds();
    return std::find(kinds.begin(), kinds.end(), word) != kinds.end();
}

} // namespace

int main(int argc, char **argv)
{
    const std::vector<std::string_view> words(argv + 1, argv + argc);
    if (!words.empty() && (words.front() == "--help" || words.front() == "-h")) {
        std::cout << kUsage;
        return 0;
    }
    if (!words.empty() && isRig(words.front()))
        return playAsRig(words);
    const Result<Options> options = optionsFrom(words);
    const Status status = options ? play(*options) : Status(options.error());
    if (status)
        return 0;
    std::cerr << "inchpeg-rig: " << status.error().message << "\n";
    return options ? 1 : 2;
}
