// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/life_page.h"

#include "core/compare/verdict.h"
#include "core/logbook/piece_life.h"
#include "core/planning/lab_code.h"

#include <QTextBrowser>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

QString escaped(const std::string &text)
{
    return QString::fromStdString(text).toHtmlEscaped();
}

/// "2026-05-12T09:40:00Z" as "2026-05-12 09:40".
QString whenText(const std::string &when)
{
    return QString::fromStdString(when).left(16).replace(QLatin1Char('T'), QLatin1Char(' '));
}

} // namespace

LifePage::LifePage(ProjectSession &session, PlanState &plan, QWidget *parent)
    : QWidget(parent), m_session(session), m_plan(plan)
{
    setObjectName(QStringLiteral("lifePage"));
    m_text = new QTextBrowser;
    m_text->setObjectName(QStringLiteral("lifeText"));
    m_text->setAccessibleName(tr("The life of the selected piece"));
    m_text->setOpenLinks(false);
    m_text->setFrameShape(QFrame::NoFrame);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 8, 12, 8);
    layout->addWidget(m_text);
    connect(&session, &ProjectSession::selectionChanged, this, [this] {
        if (isVisible())
            refresh();
    });
}

std::string LifePage::verdictOn(const Study &study, const Piece &piece) const
{
    const std::optional<Property> property = m_session.shownProperty();
    if (!property)
        return {};
    const StudyComparison comparison =
        compareStudy(study, m_session.readings(), *property,
                     {.test = m_session.shownTest(), .detail = ComparisonDetail::Sentences});
    const StudyVerdict verdict = verdictOf(study, comparison, m_session.notation());
    for (const RailVerdict &rail : verdict.rails) {
        if (rail.condition == piece.condition)
            return rail.sentence;
    }
    return {};
}

QString LifePage::lifeHtml(const Study &study, const Piece &piece)
{
    QString html;
    const std::vector<LifeLine> lines = pieceLife(study, piece, m_plan.layout(), m_session.workshop(),
                                                  readingOf(m_session.readings(), piece.id),
                                                  verdictOn(study, piece), m_session.workshopTime());
    for (const LifeLine &line : lines) {
        const QString text = escaped(m_session.notation().expand(line.text));
        html += QStringLiteral(
                    "<tr><td style='padding:3px 14px 3px 0'><b>%1</b></td><td style='padding:3px 14px 3px "
                    "0'>%2</td><td style='padding:3px 0'>%3</td></tr>")
                    .arg(escaped(line.station), whenText(line.when),
                         line.isWarning ? QStringLiteral("<b>! %1</b>").arg(text) : text);
    }
    return QStringLiteral("<table cellspacing='0'>") + html + QStringLiteral("</table>");
}

QString LifePage::historyHtml(const Study &study, const Piece &piece)
{
    const Result<std::vector<LoggedChange>> history = m_session.project().history(study.id, piece.id);
    if (!history)
        return QStringLiteral("<p>%1</p>").arg(escaped(history.error().message));
    if (history->empty())
        return QStringLiteral("<p>%1</p>")
            .arg(tr("No logged value of this piece was changed since the log is kept."));
    QString html;
    for (auto change = history->rbegin(); change != history->rend(); ++change) {
        const QString what =
            change->before.empty() ? tr("%1: %2").arg(escaped(change->what), escaped(change->after))
            : change->after.empty()
                ? tr("%1: %2 taken away").arg(escaped(change->what), escaped(change->before))
                : tr("%1: %2, was %3")
                      .arg(escaped(change->what), escaped(change->after), escaped(change->before));
        html += QStringLiteral(
                    "<tr><td style='padding:2px 14px 2px 0'>%1</td><td style='padding:2px 14px 2px 0'>%2</td>"
                    "<td style='padding:2px 0'>%3</td></tr>")
                    .arg(whenText(change->when), escaped(change->who), what);
    }
    return QStringLiteral("<table cellspacing='0'>") + html + QStringLiteral("</table>");
}

void LifePage::refresh()
{
    const Study *study = m_session.study();
    const Piece *piece = study != nullptr ? findPiece(*study, m_session.selectedPiece()) : nullptr;
    if (piece == nullptr) {
        m_text->setHtml(QStringLiteral("<p>%1</p>")
                            .arg(tr("A piece's life from plan to verdict stands here once there is one: make "
                                    "the rails under Ask &amp; "
                                    "plan, and choose a peg.")));
        return;
    }
    const std::string &prefix = m_session.workshop().labPrefix;
    const QString label =
        isLabPrefix(prefix) ? QString::fromStdString(labCode(prefix, piece->id)) : QString();
    m_text->setHtml(QStringLiteral("<h3>%1&nbsp;&nbsp;<small>%2</small></h3>%3<h4>%4</h4>%5")
                        .arg(escaped(piece->code), label, lifeHtml(*study, *piece),
                             tr("Every change of its logged values, the newest first"),
                             historyHtml(*study, *piece)));
}

} // namespace inchpeg::app
