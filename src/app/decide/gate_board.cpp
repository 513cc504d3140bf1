// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/decide/gate_board.h"

#include "app/theme/theme.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr double kNameWidth = 228.0;
constexpr double kLeastColumn = 118.0;
constexpr double kMargin = 12.0;
constexpr double kPegRadius = 7.0;
constexpr double kGateAt = 0.42;   ///< of a cell's rail: a little more room on the good side
constexpr double kBoardRows = 2.9; ///< lines of text a row is high

QString elided(const QPainter &painter, const QString &text, double width)
{
    return painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(width));
}

} // namespace

GateBoard::GateBoard(DecidePresenter &presenter, QWidget *parent) : QWidget(parent), m_presenter(presenter)
{
    setObjectName(QStringLiteral("gateBoard"));
    setAccessibleName(tr("Candidates and gates"));
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Minimum);
}

void GateBoard::refresh()
{
    updateGeometry();
    setMinimumSize(sizeHint());
    QString told;
    for (const RankedCandidate &ranked : m_presenter.decision().order)
        told += QString::fromStdString(ranked.candidate.name + ": " + ranked.why) + QLatin1Char('\n');
    setAccessibleDescription(told);
    update();
}

double GateBoard::headHeight() const
{
    return 3.6 * fontMetrics().height();
}

double GateBoard::rowHeight() const
{
    return kBoardRows * fontMetrics().height() + 12.0;
}

QSize GateBoard::sizeHint() const
{
    const Decision &decision = m_presenter.decision();
    const auto columns = static_cast<double>(decision.needs.needs.size());
    const auto rows = static_cast<double>(decision.order.size());
    return {static_cast<int>(kNameWidth + columns * kLeastColumn + kMargin),
            static_cast<int>(headHeight() + rows * rowHeight() + 4.0)};
}

double GateBoard::columnWidth() const
{
    const std::size_t columns = std::max<std::size_t>(1, m_presenter.decision().needs.needs.size());
    return std::max(kLeastColumn, (width() - kNameWidth - kMargin) / static_cast<double>(columns));
}

QRectF GateBoard::cell(std::size_t candidate, std::size_t need) const
{
    return {kNameWidth + static_cast<double>(need) * columnWidth(),
            headHeight() + static_cast<double>(candidate) * rowHeight(), columnWidth(), rowHeight()};
}

void GateBoard::paintEvent(QPaintEvent *)
{
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Theme &theme = currentTheme();
    painter.fillRect(rect(), theme.sheet);
    const Decision &decision = m_presenter.decision();
    if (decision.order.empty()) {
        painter.setPen(theme.softInk);
        painter.drawText(
            rect().adjusted(40, 20, -40, -20), Qt::AlignCenter | Qt::TextWordWrap,
            m_presenter.isWorking()
                ? tr("Working it out…")
                : tr("Here the candidates stand as rails, and what the part needs as gates across them. "
                     "A peg right of its gate passes. Begin with a usual part above, or add a need below."));
        return;
    }
    paintHead(painter);
    for (std::size_t candidate = 0; candidate < decision.order.size(); ++candidate)
        paintRow(painter, candidate);
}

void GateBoard::paintHead(QPainter &painter) const
{
    const Theme &theme = currentTheme();
    const std::vector<Need> &needs = m_presenter.decision().needs.needs;
    for (std::size_t need = 0; need < needs.size(); ++need) {
        const QRectF box = QRectF(cell(0, need).left() + 4.0, 2.0, columnWidth() - 8.0, headHeight() - 6.0);
        QFont bold = font();
        bold.setWeight(QFont::DemiBold);
        painter.setFont(bold);
        painter.setPen(theme.ink);
        const double line = fontMetrics().height();
        const QString name = QString::fromStdString(needs[need].name);
        painter.drawText(QRectF(box.left(), box.top(), box.width(), 2.0 * line),
                         Qt::AlignLeft | Qt::TextWordWrap,
                         painter.fontMetrics().horizontalAdvance(name) > 1.8 * box.width()
                             ? elided(painter, name, 1.8 * box.width())
                             : name);
        painter.setFont(font());
        painter.setPen(theme.softInk);
        const QString gate = (needs[need].isMust ? QString() : tr("wish · ")) + m_presenter.gateText(need);
        painter.drawText(QPointF(box.left(), box.bottom() - 3.0), elided(painter, gate, box.width()));
    }
    painter.setPen(QPen(theme.line, 1.0));
    painter.drawLine(QPointF(0.0, headHeight() - 0.5), QPointF(width(), headHeight() - 0.5));
}

void GateBoard::paintRow(QPainter &painter, std::size_t candidate) const
{
    const Theme &theme = currentTheme();
    const RankedCandidate &ranked = m_presenter.decision().order[candidate];
    const QRectF row(0.0, cell(candidate, 0).top(), width(), rowHeight());
    if (candidate == m_presenter.chosen()) {
        QColor lit = theme.accent;
        lit.setAlphaF(hasFocus() ? 0.14F : 0.08F);
        painter.fillRect(row, lit);
        painter.fillRect(QRectF(0.0, row.top(), 4.0, row.height()), theme.accent);
    }
    const double line = fontMetrics().height();
    const double nameWidth = kNameWidth - 2.0 * kMargin;
    // A material with its print condition: the condition tells those of one material apart.
    const QStringList parts = QString::fromStdString(ranked.candidate.name).split(QStringLiteral(" · "));
    const QString title = parts.size() > 1 ? parts.mid(1).join(QStringLiteral(" · ")) : parts.front();
    QFont bold = font();
    bold.setWeight(QFont::DemiBold);
    painter.setFont(bold);
    painter.setPen(theme.ink);
    painter.drawText(QPointF(kMargin, row.top() + 6.0 + 0.8 * line),
                     elided(painter, QStringLiteral("%1  %2").arg(candidate + 1).arg(title), nameWidth));
    painter.setFont(font());
    painter.setPen(theme.softInk);
    if (parts.size() > 1)
        painter.drawText(QPointF(kMargin, row.top() + 7.0 + 1.8 * line),
                         elided(painter, parts.front(), nameWidth));
    const QString state = ranked.fails == 1     ? tr("✕ fails one must")
                          : ranked.fails > 1    ? tr("✕ fails %1 musts").arg(ranked.fails)
                          : ranked.unknown == 1 ? tr("? one must not known")
                          : ranked.unknown > 1  ? tr("? %1 musts not known").arg(ranked.unknown)
                                                : tr("✓ passes every must");
    painter.setPen(ranked.fails > 0 ? theme.warning : theme.softInk);
    painter.drawText(QPointF(kMargin, row.top() + 8.0 + (parts.size() > 1 ? 2.8 : 1.8) * line),
                     elided(painter, state, nameWidth));
    for (std::size_t need = 0; need < ranked.gates.size(); ++need)
        paintGate(painter, candidate, need);
    painter.setPen(QPen(theme.line, 1.0));
    painter.drawLine(row.bottomLeft(), row.bottomRight());
}

void GateBoard::paintGate(QPainter &painter, std::size_t candidate, std::size_t need) const
{
    const Theme &theme = currentTheme();
    const Gate &gate = m_presenter.decision().order[candidate].gates[need];
    const QRectF box = cell(candidate, need).adjusted(8.0, 0.0, -10.0, 0.0);
    const double y = box.top() + 0.40 * box.height() - 2.0;
    const double gateX = box.left() + kGateAt * box.width();
    const bool fails = gate.state == GateState::Fails;
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme.rail);
    painter.drawRoundedRect(QRectF(box.left(), y - 2.5, box.width(), 5.0), 2.5, 2.5);
    // The gate: its closed side is the left one.
    painter.setPen(QPen(theme.ink, 2.0));
    painter.drawLine(QPointF(gateX, y - 11.0), QPointF(gateX, y + 11.0));
    painter.setPen(QPen(theme.ink, 1.0));
    for (const double up : {-11.0, 11.0})
        painter.drawLine(QPointF(gateX, y + up), QPointF(gateX - 5.0, y + up));
    const std::optional<double> place = m_presenter.place(candidate, need);
    const QColor ink = fails ? theme.warning : theme.ink;
    painter.setPen(ink);
    if (!place) {
        painter.drawText(QRectF(gateX + 4.0, y - 12.0, 22.0, 24.0), Qt::AlignCenter, QStringLiteral("?"));
    } else {
        const double room = *place < 0.0 ? gateX - box.left() - kPegRadius : box.right() - gateX - kPegRadius;
        const QPointF at(gateX + *place * room, y);
        painter.setPen(QPen(ink, 1.6));
        painter.setBrush(gate.evidence.kind == EvidenceKind::Measured ? QBrush(ink) : QBrush(theme.sheet));
        painter.drawEllipse(at, kPegRadius, kPegRadius);
        if (gate.evidence.kind == EvidenceKind::Sheet) {
            painter.setBrush(ink);
            painter.drawPie(
                QRectF(at.x() - kPegRadius, at.y() - kPegRadius, 2.0 * kPegRadius, 2.0 * kPegRadius), 90 * 16,
                180 * 16);
        }
        if (gate.evidence.isBound) { // at least this much
            painter.drawLine(at + QPointF(kPegRadius, 0.0), at + QPointF(kPegRadius + 9.0, 0.0));
            painter.drawLine(at + QPointF(kPegRadius + 9.0, 0.0), at + QPointF(kPegRadius + 5.0, -4.0));
            painter.drawLine(at + QPointF(kPegRadius + 9.0, 0.0), at + QPointF(kPegRadius + 5.0, 4.0));
        }
    }
    const QString sign = gate.state == GateState::Passes ? QStringLiteral("✓ ")
                         : fails                         ? QStringLiteral("✕ ")
                                                         : QStringLiteral("? ");
    painter.setPen(fails ? theme.warning : theme.softInk);
    painter.drawText(
        QRectF(box.left(), box.bottom() - fontMetrics().height() - 4.0, box.width(), fontMetrics().height()),
        Qt::AlignLeft | Qt::AlignVCenter,
        elided(painter, sign + m_presenter.valueText(candidate, need), box.width()));
}

void GateBoard::mousePressEvent(QMouseEvent *event)
{
    const double y = event->position().y() - headHeight();
    if (y >= 0.0)
        m_presenter.choose(static_cast<std::size_t>(y / rowHeight()));
}

void GateBoard::keyPressEvent(QKeyEvent *event)
{
    if (event->key() == Qt::Key_Down)
        m_presenter.choose(m_presenter.chosen() + 1);
    else if (event->key() == Qt::Key_Up && m_presenter.chosen() > 0)
        m_presenter.choose(m_presenter.chosen() - 1);
    else
        QWidget::keyPressEvent(event);
}

bool GateBoard::event(QEvent *event)
{
    if (event->type() == QEvent::ToolTip) {
        const auto *help = static_cast<QHelpEvent *>(event);
        const Decision &decision = m_presenter.decision();
        const double x = help->pos().x() - kNameWidth;
        const double y = help->pos().y() - headHeight();
        if (x >= 0.0 && y >= 0.0) {
            const auto need = static_cast<std::size_t>(x / columnWidth());
            const auto candidate = static_cast<std::size_t>(y / rowHeight());
            if (candidate < decision.order.size() && need < decision.needs.needs.size()) {
                const Gate &gate = decision.order[candidate].gates[need];
                QString tip = QString::fromStdString(gate.why);
                if (!gate.evidence.study.empty())
                    tip += QLatin1Char('\n') + QString::fromStdString(gate.evidence.study);
                if (!gate.evidence.note.empty())
                    tip += QLatin1Char('\n') + QString::fromStdString(gate.evidence.note);
                QToolTip::showText(help->globalPos(), tip, this);
                return true;
            }
        }
        QToolTip::hideText();
        return true;
    }
    return QWidget::event(event);
}

} // namespace inchpeg::app
