// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/find/finder.h"

#include "core/planning/lab_code.h"

namespace inchpeg::app
{

namespace
{

constexpr int kPause_ms = 90;
constexpr std::size_t kMostOfAKind = 8;

} // namespace

Finder::Finder(ProjectSession &session, QObject *parent) : QObject(parent), m_session(session)
{
    m_pause.setSingleShot(true);
    m_pause.setInterval(kPause_ms);
    connect(&m_pause, &QTimer::timeout, this, &Finder::begin);
}

void Finder::look(const QString &words)
{
    m_words = words.trimmed();
    if (m_words.size() < 2) {
        m_pause.stop();
        m_asked.clear();
        m_items.clear();
        m_materials.clear();
        emit found();
        return;
    }
    m_pause.start();
}

void Finder::begin()
{
    if (m_search.isRunning() || !m_session.hasProject() || m_words.size() < 2)
        return; // take() looks whether other words are wanted by then
    m_asked = m_words;
    m_search.begin(
        "search",
        [path = m_session.projectPath().toStdString(), words = m_asked.toStdString()] {
            return searchProject(path, words, kMostOfAKind);
        },
        [this](Result<std::vector<FoundItem>> items) { take(std::move(items)); });
}

void Finder::take(Result<std::vector<FoundItem>> items)
{
    if (m_words != m_asked) {
        begin();
        return;
    }
    if (items)
        m_items = std::move(*items);
    else
        m_items.clear();
    m_materials.clear();
    for (const SpoolCard &spool : m_session.workshop().spools) {
        const QString name = QString::fromStdString(spool.material);
        if (name.contains(m_words, Qt::CaseInsensitive))
            m_materials << name;
    }
    const std::string &prefix = m_session.workshop().labPrefix;
    if (const std::optional<PieceId> label = pieceOfLabel(prefix, m_words.toStdString())) {
        if (const Result<StudyId> study = m_session.project().studyOf(*label))
            m_items.insert(m_items.begin(), {FoundItem::Kind::Piece,
                                             *study,
                                             *label,
                                             m_words.toStdString(),
                                             "the label of this piece",
                                             {}});
    }
    emit found();
}

QString Finder::titleOf(const FoundItem &item) const
{
    const QString title = QString::fromStdString(item.title);
    const QString context = QString::fromStdString(item.context);
    const QString question = QString::fromStdString(item.question);
    switch (item.kind) {
    case FoundItem::Kind::Study:
        return tr("Study: %1").arg(title);
    case FoundItem::Kind::Rail:
        return context.isEmpty() ? tr("Rail %1 · %2").arg(title, question)
                                 : tr("Rail %1, %2 · %3").arg(title, context, question);
    case FoundItem::Kind::Piece:
        return context.isEmpty() ? tr("Piece %1 · %2").arg(title, question)
                                 : tr("Piece %1, %2").arg(title, context);
    case FoundItem::Kind::Note:
        return tr("%1: %2").arg(title, context);
    case FoundItem::Kind::Plate:
        return tr("%1: %2 · %3").arg(title, context, question);
    }
    throw ContractViolation("unknown kind of finding");
}

void Finder::open(const FoundItem &item)
{
    m_session.tell(m_session.goTo(item.study, item.piece));
}

} // namespace inchpeg::app
