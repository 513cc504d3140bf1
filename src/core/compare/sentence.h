// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What a sentence of a comparison is about, by rank for the reader: core/compare/sentence_kinds.def.
enum class SentenceKind {
#define INCHPEG_SENTENCE(kind, ...) kind,
#include "core/compare/sentence_kinds.def"
#undef INCHPEG_SENTENCE
};

/// When a kind of sentence is said, and what it rests on.
struct SentenceFacts {
    SentenceKind kind = SentenceKind::Headline;
    std::string_view name; ///< in files: "best", "log-explains"
    std::string_view saidWhen;
    std::string_view notWhen;
    std::string_view restsOn;
    std::string_view level; ///< of error that it spends
};

std::span<const SentenceFacts> allSentenceKinds();
std::string_view sentenceKindName(SentenceKind kind);

/// A sentence that is said of a comparison.
struct Sentence {
    SentenceKind kind = SentenceKind::Headline;
    std::string text;
    bool operator==(const Sentence &) const = default;
};

/// Adds what there is to say: an empty text is nothing.
void say(std::vector<Sentence> &sentences, SentenceKind kind, std::string text);
void say(std::vector<Sentence> &sentences, SentenceKind kind, std::vector<std::string> texts);

/// The sentences alone.
std::vector<std::string> textsOf(std::span<const Sentence> sentences);

} // namespace inchpeg
