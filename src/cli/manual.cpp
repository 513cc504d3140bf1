// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/manual.h"

#include "core/text/letters.h"

#include <fmt/format.h>

#include <map>
#include <vector>

namespace inchpeg::cli
{

namespace
{

/// Without what troff would take for its own: hyphens stay hyphens, a backslash is one.
std::string escaped(std::string_view text)
{
    std::string out;
    for (const char c : text) {
        if (c == '-')
            out += "\\-";
        else if (c == '\\')
            out += "\\e";
        else
            out += c;
    }
    if (out.starts_with('.') || out.starts_with('\''))
        out.insert(0, "\\&");
    return out;
}

/// "json|text": what an option chooses among; empty for any other.
std::vector<std::string> choicesOf(std::string_view valueName)
{
    std::vector<std::string> choices;
    if (valueName.find('|') == std::string_view::npos || valueName.find(' ') != std::string_view::npos)
        return choices;
    for (std::size_t at = 0; at <= valueName.size();) {
        const std::size_t end = std::min(valueName.find('|', at), valueName.size());
        choices.emplace_back(valueName.substr(at, end - at));
        at = end + 1;
    }
    return choices;
}

constexpr std::string_view kPageHead =
    ".TH INCHPEG-CLI 1 \"\" \"Inch Peg " INCHPEG_VERSION R"(" "User Commands"
.SH NAME
inchpeg-cli \- test, compare and decide on printed specimens on the command line
.SH SYNOPSIS
.B inchpeg-cli
.I command subcommand
.RI [ options ]
.SH DESCRIPTION
Computes what the windows of
.BR inchpeg (1)
compute, with the same code.
Results go to standard output, as JSON or as text; messages go to standard error.
Where a table or a record is wanted,
.B \-
reads standard input.
A study is named by its question, by how that begins, or by its number.
.SH COMMANDS
)";

constexpr std::string_view kPageEnd = R"(.SH OPTIONS OF ALL COMMANDS
.TP
.BR \-\-format " json|text"
JSON is the default where standard output is not a terminal.
.TP
.B \-\-help
Tells what a command takes.
.TP
.B \-\-version
Shows the version of the program and of the formats that it writes.
.TP
.BR \-\-completion " bash"
Prints a script that completes commands and options.
.SH EXIT STATUS
0: done. 1: internal failure. 2: the input or the options are wrong; standard error names the file, the line and
what would be right.
.SH SEE ALSO
.BR inchpeg (1),
.BR inchpeg-rig (1)
)";

} // namespace

std::string usageOf(const Command &command)
{
    std::string usage = fmt::format("inchpeg-cli {}", command.group);
    for (const std::string_view part : {command.name, command.arguments}) {
        if (!part.empty())
            usage += fmt::format(" {}", part);
    }
    for (const OptionSpec &spec : command.options) {
        if (spec.required)
            usage += fmt::format(" --{} {}", spec.name, spec.valueName);
    }
    return usage + " [options]";
}

std::string manualPage(std::span<const Command> commands)
{
    std::string page(kPageHead);
    for (const Command &command : commands) {
        std::string name =
            fmt::format("{}{}{}", command.group, command.name.empty() ? "" : " ", command.name);
        page += fmt::format(".SS \"{} {}\"\n{}.\n", escaped(name), escaped(command.arguments),
                            escaped(capitalised(command.summary)));
        for (const OptionSpec &spec : command.options)
            page += fmt::format(".TP\n.B \\-\\-{} {}\n{}{}.\n", escaped(spec.name), escaped(spec.valueName),
                                escaped(capitalised(spec.help)), spec.required ? " (required)" : "");
    }
    return page + std::string(kPageEnd);
}

std::string bashCompletion(std::span<const Command> commands)
{
    std::map<std::string, std::string> subcommands;
    std::string options;
    std::string choices;
    for (const Command &command : commands) {
        const std::string group(command.group);
        if (!command.name.empty())
            subcommands[group] += (subcommands[group].empty() ? "" : " ") + std::string(command.name);
        else
            subcommands.try_emplace(group);
        std::string known = "--format --help";
        for (const OptionSpec &spec : command.options) {
            known += fmt::format(" --{}", spec.name);
            const std::vector<std::string> words = choicesOf(spec.valueName);
            if (!words.empty())
                choices += fmt::format("    \"{} {} --{}\") words=\"{}\" ;;\n", group, command.name,
                                       spec.name, fmt::join(words, " "));
        }
        options += fmt::format("    \"{} {}\") words=\"{}\" ;;\n", group, command.name, known);
    }
    std::string groups;
    std::string names;
    for (const auto &[group, words] : subcommands) {
        groups += (groups.empty() ? "" : " ") + group;
        names += fmt::format("    {}) words=\"{}\" ;;\n", group, words);
    }
    return fmt::format(
        R"(# Completes the words of inchpeg-cli in bash; printed by: inchpeg-cli --completion bash
_inchpeg_cli()
{{
    local current=${{COMP_WORDS[COMP_CWORD]}} before=${{COMP_WORDS[COMP_CWORD-1]}} words=
    local call="${{COMP_WORDS[1]}} ${{COMP_WORDS[2]}}"
    [ "${{COMP_WORDS[1]}}" = decide ] && call="decide "
    if [ "$COMP_CWORD" -eq 1 ]; then
        words="{} --help --version"
    elif [ "$COMP_CWORD" -eq 2 ] && [ "${{current#-}}" = "$current" ]; then
        case ${{COMP_WORDS[1]}} in
{}        esac
    elif [ "$before" = --format ]; then
        words="json text"
    elif [ "${{current#-}}" != "$current" ]; then
        case $call in
{}        esac
    else
        case "$call $before" in
{}        esac
    fi
    COMPREPLY=($(compgen -W "$words" -- "$current"))
    [ ${{#COMPREPLY[@]}} -eq 0 ] && COMPREPLY=($(compgen -f -- "$current"))
}}
complete -o filenames -F _inchpeg_cli inchpeg-cli
)",
        groups, names, options, choices);
}

} // namespace inchpeg::cli
