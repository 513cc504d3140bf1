// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/sentence.h"

#include <utility>

namespace inchpeg
{

std::span<const SentenceFacts> allSentenceKinds()
{
    static constexpr SentenceFacts kAll[] = {
#define INCHPEG_SENTENCE(kind, ...) {SentenceKind::kind, __VA_ARGS__},
#include "core/compare/sentence_kinds.def"
#undef INCHPEG_SENTENCE
    };
    return kAll;
}

std::string_view sentenceKindName(SentenceKind kind)
{
    return allSentenceKinds()[static_cast<std::size_t>(kind)].name;
}

void say(std::vector<Sentence> &sentences, SentenceKind kind, std::string text)
{
    if (!text.empty())
        sentences.push_back({kind, std::move(text)});
}

void say(std::vector<Sentence> &sentences, SentenceKind kind, std::vector<std::string> texts)
{
    for (std::string &text : texts)
        say(sentences, kind, std::move(text));
}

std::vector<std::string> textsOf(std::span<const Sentence> sentences)
{
    std::vector<std::string> texts;
    for (const Sentence &sentence : sentences)
        texts.push_back(sentence.text);
    return texts;
}

} // namespace inchpeg
