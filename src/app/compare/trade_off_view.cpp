// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/trade_off_view.h"

#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"
#include "app/theme/theme.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHelpEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr int kPlotHeight = 250;
constexpr int kLeastPlotHeight = 150; ///< in a small window the rails need the room
constexpr double kLeft = 78.0;
constexpr double kBottom = 42.0;
constexpr double kRight = 24.0;
constexpr double kTop = 14.0;
constexpr double kRadius = 6.0;
constexpr double kTitleGap = 14.0;
constexpr double kPointReach = 14.0; ///< of the pointer

} // namespace

TradeOffPlot::TradeOffPlot(ProjectSession &session, TradeOffPresenter &presenter, QWidget *parent)
    : QWidget(parent), m_session(session), m_presenter(presenter)
{
    setObjectName(QStringLiteral("tradeOffPlot"));
    setMinimumHeight(kLeastPlotHeight);
    setMaximumHeight(kPlotHeight);
    setAccessibleName(tr("Rails over what a piece costs"));
    setToolTipDuration(-1);
    connect(&presenter, &TradeOffPresenter::changed, this, [this] {
        layOut();
        QStringList words;
        for (const TradeOffPresenter::Point &point : m_presenter.points())
            words << point.words;
        setAccessibleDescription(words.join(QStringLiteral("; ")));
        update();
    });
}

QSize TradeOffPlot::sizeHint() const
{
    const QWidget *whole = window();
    constexpr int kShare = 3; // of the window's height
    return {400, std::clamp(whole->height() / kShare, kLeastPlotHeight, kPlotHeight)};
}

QRectF TradeOffPlot::sheet() const
{
    return QRectF(rect()).adjusted(kLeft, kTop, -kRight, -kBottom);
}

void TradeOffPlot::layOut()
{
    std::vector<double> costs;
    std::vector<double> values;
    for (const TradeOffPresenter::Point &point : m_presenter.points()) {
        costs.push_back(point.point.cost);
        values.push_back(m_presenter.shownValue(point.point.mean));
        if (point.point.ci) {
            values.push_back(m_presenter.shownValue(point.point.ci->low));
            values.push_back(m_presenter.shownValue(point.point.ci->high));
        }
    }
    m_x = scaleAround(costs, 8);
    m_y = scaleAround(values, 5);
}

QPointF TradeOffPlot::placeOf(std::size_t point) const
{
    const TradeOffPoint &one = m_presenter.points().at(point).point;
    const QRectF area = sheet();
    return {area.left() + m_x.share(one.cost) * area.width(),
            area.bottom() - m_y.share(m_presenter.shownValue(one.mean)) * area.height()};
}

void TradeOffPlot::paintAxes(QPainter &painter) const
{
    const Theme &theme = currentTheme();
    const QRectF area = sheet();
    const Notation &notation = m_presenter.notation();
    for (const double mark : m_x.marks()) {
        const double x = area.left() + m_x.share(mark) * area.width();
        painter.setPen(QPen(theme.line, 1.0));
        painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom() + 4.0));
        painter.setPen(theme.ink);
        painter.drawText(QRectF(x - 60.0, area.bottom() + 4.0, 120.0, 16.0), Qt::AlignHCenter | Qt::AlignTop,
                         QString::fromStdString(notation.fixed(mark, m_x.decimals)));
    }
    for (const double mark : m_y.marks()) {
        const double y = area.bottom() - m_y.share(mark) * area.height();
        painter.setPen(QPen(theme.line, 1.0));
        painter.drawLine(QPointF(area.left() - 4.0, y), QPointF(area.right(), y));
        painter.setPen(theme.ink);
        painter.drawText(QRectF(0.0, y - 9.0, area.left() - 8.0, 18.0), Qt::AlignRight | Qt::AlignVCenter,
                         QString::fromStdString(notation.fixed(mark, m_y.decimals)));
    }
    painter.setPen(theme.softInk);
    painter.drawText(QRectF(area.left(), area.bottom() + 21.0, area.width(), 18.0),
                     Qt::AlignHCenter | Qt::AlignVCenter, m_presenter.costLabel());
    painter.save();
    painter.translate(14.0, area.center().y());
    painter.rotate(-90.0);
    painter.drawText(QRectF(-0.5 * area.height(), -9.0, area.height(), 18.0),
                     Qt::AlignHCenter | Qt::AlignVCenter, m_presenter.valueLabel());
    painter.restore();
}

/// On the front filled, beside it hollow; the knee with a second ring.
void TradeOffPlot::paintPoint(QPainter &painter, std::size_t point) const
{
    const Theme &theme = currentTheme();
    const TradeOffPresenter::Point &one = m_presenter.points()[point];
    const QPointF place = placeOf(point);
    const QRectF area = sheet();
    const QColor ink = one.isReference ? theme.accent : theme.ink;
    painter.setPen(QPen(ink, 1.4));
    if (one.point.ci) {
        const auto height = [&](double value) {
            return area.bottom() - m_y.share(m_presenter.shownValue(value)) * area.height();
        };
        const double low = height(one.point.ci->low);
        const double high = height(one.point.ci->high);
        painter.drawLine(QPointF(place.x(), low), QPointF(place.x(), high));
        painter.drawLine(QPointF(place.x() - 4.0, low), QPointF(place.x() + 4.0, low));
        painter.drawLine(QPointF(place.x() - 4.0, high), QPointF(place.x() + 4.0, high));
    }
    painter.setBrush(one.point.isOnFront ? ink : theme.sheet);
    painter.drawEllipse(place, kRadius, kRadius);
    if (one.isKnee) {
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(place, kRadius + 4.0, kRadius + 4.0);
    }
}

QRectF TradeOffPlot::titlePlace(const QFontMetrics &font, std::size_t point,
                                const std::vector<QRectF> &taken) const
{
    const QPointF place = placeOf(point);
    const double width = font.horizontalAdvance(m_presenter.points()[point].title) + 2.0;
    const double height = font.height();
    const bool fits = place.x() + kTitleGap + width < rect().right();
    QRectF title(fits ? place.x() + kTitleGap : place.x() - kTitleGap - width, place.y() - height, width,
                 height);
    const auto isTaken = [&](const QRectF &other) { return other.intersects(title); };
    while (std::any_of(taken.begin(), taken.end(), isTaken) && title.bottom() + height < sheet().bottom())
        title.translate(0.0, height);
    return title;
}

void TradeOffPlot::paintEvent(QPaintEvent *)
{
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Theme &theme = currentTheme();
    painter.fillRect(rect(), theme.sheet);
    if (m_presenter.points().empty())
        return;
    paintAxes(painter);
    painter.setPen(QPen(theme.softInk, 1.0, Qt::DashLine));
    for (std::size_t i = 1; i < m_presenter.front().size(); ++i)
        painter.drawLine(placeOf(m_presenter.front()[i - 1]), placeOf(m_presenter.front()[i]));
    std::vector<QRectF> taken;
    for (std::size_t point = 0; point < m_presenter.points().size(); ++point) {
        paintPoint(painter, point);
        taken.push_back(titlePlace(painter.fontMetrics(), point, taken));
        painter.drawText(taken.back(), Qt::AlignLeft | Qt::AlignVCenter, m_presenter.points()[point].title);
    }
}

std::optional<std::size_t> TradeOffPlot::pointAt(QPointF place) const
{
    std::optional<std::size_t> nearest;
    double least = kPointReach;
    for (std::size_t point = 0; point < m_presenter.points().size(); ++point) {
        const QPointF away = placeOf(point) - place;
        const double distance = std::hypot(away.x(), away.y());
        if (distance < least) {
            least = distance;
            nearest = point;
        }
    }
    return nearest;
}

/// The same peg in every lens: the rail's first piece is chosen.
void TradeOffPlot::mousePressEvent(QMouseEvent *event)
{
    const std::optional<std::size_t> point = pointAt(event->position());
    if (!point || m_session.study() == nullptr)
        return;
    const Study &study = *m_session.study();
    for (const Piece *piece : piecesOf(study, m_presenter.points()[*point].point.condition)) {
        if (piece->test == m_session.shownTest().value_or(methodOf(study))) {
            m_session.selectPiece(piece->id);
            return;
        }
    }
}

bool TradeOffPlot::event(QEvent *event)
{
    if (event->type() != QEvent::ToolTip)
        return QWidget::event(event);
    const auto *help = static_cast<QHelpEvent *>(event);
    if (const std::optional<std::size_t> point = pointAt(help->pos()))
        QToolTip::showText(help->globalPos(), m_presenter.points()[*point].words, this);
    else
        QToolTip::hideText();
    return true;
}

TradeOffView::TradeOffView(ProjectSession &session, QWidget *parent) : QWidget(parent), m_presenter(session)
{
    setObjectName(QStringLiteral("tradeOff"));
    m_kind = comboBox("tradeOffCost", tr("What it costs"));
    m_kind->addItem(tr("print time"), static_cast<int>(CostKind::PrintTime));
    m_kind->addItem(tr("mass"), static_cast<int>(CostKind::PieceMass));
    m_kind->addItem(tr("material's price"), static_cast<int>(CostKind::Price));
    m_sentence = new QLabel;
    m_sentence->setObjectName(QStringLiteral("tradeOffSentence"));
    m_sentence->setWordWrap(true);
    m_sentence->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_plot = new TradeOffPlot(session, m_presenter);
    auto *row = new QHBoxLayout;
    row->setContentsMargins(12, 6, 12, 2);
    row->addWidget(new QLabel(tr("Against")));
    row->addSpacing(8);
    row->addWidget(m_kind);
    row->addSpacing(12);
    row->addWidget(m_sentence, 1);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addLayout(row);
    layout->addWidget(m_plot);
    connect(m_kind, &QComboBox::activated, this,
            [this] { m_presenter.setKind(static_cast<CostKind>(m_kind->currentData().toInt())); });
    connect(&m_presenter, &TradeOffPresenter::changed, this, &TradeOffView::showPresented);
}

void TradeOffView::showPresented()
{
    m_sentence->setText(m_presenter.sentence());
}

} // namespace inchpeg::app
