// SPDX-License-Identifier: GPL-3.0-or-later
// inchpeg-rig: plays a gauge on a pseudo-terminal, so that the program can be tried and tested without one.
// What it sends is described in docs/rig_protocol.md.
#include "core/units/number.h"
#include "rig/pseudo_terminal.h"
#include "sim/simulated_gauge.h"

#include <fmt/format.h>

#include <iostream>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

using namespace inchpeg;
using sim::SimulatedGauge;

namespace
{

constexpr std::string_view kUsage = R"(inchpeg-rig plays a measuring gauge on a pseudo-terminal.

  inchpeg-rig calliper [options]     millimetres
  inchpeg-rig scale [options]        grams

Options
  --around X       readings scatter around X (4 mm, 9 g)
  --scatter X      with this standard deviation
  --readings A,B   sends these first
  --seed N         of the scatter
  --link PATH      makes PATH point to the pseudo-terminal

The first line on standard output is the terminal's path. Then each line on standard input is a command:
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
        return invalidArgument("say which gauge is to be played: calliper or scale");
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

int main(int argc, char **argv)
{
    const std::vector<std::string_view> words(argv + 1, argv + argc);
    if (!words.empty() && (words.front() == "--help" || words.front() == "-h")) {
        std::cout << kUsage;
        return 0;
    }
    const Result<Options> options = optionsFrom(words);
    const Status status = options ? play(*options) : Status(options.error());
    if (status)
        return 0;
    std::cerr << "inchpeg-rig: " << status.error().message << "\n";
    return options ? 1 : 2;
}
