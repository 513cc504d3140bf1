// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/response_table.h"

#include "app/compare/response_painter.h"
#include "app/theme/plain_texts.h"
#include "app/theme/theme.h"
#include "core/compare/procedure_text.h"

#include <QFocusEvent>
#include <QHelpEvent>
#include <QPainter>
#include <QScrollBar>
#include <QToolTip>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr double kLeastLabel = 100.0;
constexpr double kWidestLabel = 220.0;
constexpr double kLeastColumn = 112.0;
constexpr double kWidestColumn = 240.0;

QString utf8(std::string_view text)
{
    return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
}

/// Of a rail's title.
QFont railFont(QFont font)
{
    font.setPointSizeF(font.pointSizeF() * kResponseTitleScale);
    font.setWeight(QFont::DemiBold);
    return font;
}

AxisScale scaleOf(const ResponseColumn &column)
{
    std::vector<double> values;
    for (const ResponseCell &cell : column.cells) {
        for (const PieceValue &value : cell.values)
            values.push_back(value.value);
    }
    return scaleAround(values, 3);
}

} // namespace

ResponseTable::ResponseTable(ProjectSession &session, QWidget *parent)
    : QAbstractScrollArea(parent), m_session(session)
{
    setObjectName(QStringLiteral("responseTable"));
    setAccessibleName(tr("All responses: rails by tests; Enter opens a cell"));
    setFocusPolicy(Qt::StrongFocus);
    setFrameShape(QFrame::NoFrame);
    viewport()->setMouseTracking(true);
    for (const auto signal :
         {&ProjectSession::studyChanged, &ProjectSession::readingsChanged, &ProjectSession::comparisonChanged,
          &ProjectSession::lensChanged, &ProjectSession::notationChanged})
        connect(&session, signal, this, &ResponseTable::rebuild);
    connect(&session, &ProjectSession::selectionChanged, viewport(), [this] { viewport()->update(); });
}

void ResponseTable::rebuild()
{
    m_columns.clear();
    m_scales.clear();
    m_rails.clear();
    m_testNames.clear();
    m_headline.clear();
    const Study *study = m_session.study();
    if (study != nullptr && m_session.lens() == Lens::Compare && m_session.isResponseTableShown()) {
        m_columns = responseTable(*study, m_session.readings(), m_session.notation());
        m_headline = QString::fromStdString(responsesHeadline(*study, m_columns));
        m_confidence =
            QString::fromStdString(confidenceText(study->plan.aim.confidence, m_session.notation()));
        for (const Condition &condition : study->conditions)
            m_rails.push_back({utf8(railTitle(*study, condition)), condition.id == study->reference});
    }
    for (const ResponseColumn &column : m_columns) {
        m_scales.push_back(scaleOf(column));
        m_testNames.push_back(utf8(methodName(column.response.test)));
    }
    layOut();
    if (!m_columns.empty())
        choose({std::min(m_chosen.rail, m_columns.front().cells.size()),
                std::min(m_chosen.column, m_columns.size() - 1)});
    viewport()->update();
    emit refreshed();
}

void ResponseTable::layOut()
{
    const QFontMetricsF metrics(font());
    const auto columns = static_cast<double>(std::max<std::size_t>(1, m_columns.size()));
    const std::size_t rails = m_rails.size();
    const double width = viewport()->width();
    const QFontMetricsF labels(railFont(font()));
    m_labelWidth = kLeastLabel;
    for (std::size_t r = 0; r < rails; ++r)
        m_labelWidth =
            std::max(m_labelWidth, labels.horizontalAdvance(m_rails[r].title) + 2.0 * kResponseMargin);
    m_labelWidth = std::min(m_labelWidth, kWidestLabel);
    m_columnWidth =
        std::clamp((width - m_labelWidth - kResponseMargin) / columns, kLeastColumn, kWidestColumn);
    m_headHeight = 5.5 * metrics.lineSpacing();
    m_rowHeight = std::clamp((viewport()->height() - m_headHeight - kResponseMargin) /
                                 static_cast<double>(std::max<std::size_t>(1, rails)),
                             4.2 * metrics.lineSpacing(), 5.4 * metrics.lineSpacing());
    const QSize whole = wholeSize();
    const auto fit = [](QScrollBar *bar, int content, int page) {
        bar->setRange(0, std::max(0, content - page));
        bar->setPageStep(page);
        bar->setSingleStep(40);
    };
    fit(horizontalScrollBar(), whole.width(), viewport()->width());
    fit(verticalScrollBar(), whole.height(), viewport()->height());
}

QSize ResponseTable::wholeSize() const
{
    const std::size_t rails = m_rails.size();
    return QSizeF(m_labelWidth + static_cast<double>(m_columns.size()) * m_columnWidth,
                  m_headHeight + static_cast<double>(rails) * m_rowHeight)
        .toSize();
}

QRectF ResponseTable::placeOf(std::size_t rail, std::size_t column, QPointF scrolled) const
{
    return {m_labelWidth + static_cast<double>(column) * m_columnWidth - scrolled.x(),
            m_headHeight + static_cast<double>(rail) * m_rowHeight - scrolled.y(), m_columnWidth,
            m_rowHeight};
}

QRectF ResponseTable::cellRect(std::size_t rail, std::size_t column) const
{
    return placeOf(rail, column, QPointF(horizontalScrollBar()->value(), verticalScrollBar()->value()));
}

std::optional<ResponseTable::Cell> ResponseTable::cellAt(QPointF point) const
{
    const std::optional<std::size_t> column = columnAt(point.x());
    if (!column || point.y() < m_headHeight)
        return std::nullopt;
    for (std::size_t r = 0; r < m_columns[*column].cells.size(); ++r) {
        if (cellRect(r, *column).contains(point))
            return Cell{r, *column};
    }
    return std::nullopt;
}

std::optional<std::size_t> ResponseTable::columnAt(double x) const
{
    for (std::size_t c = 0; c < m_columns.size() && x >= m_labelWidth; ++c) {
        const QRectF place = cellRect(0, c);
        if (x >= place.left() && x < place.right())
            return c;
    }
    return std::nullopt;
}

QString ResponseTable::cellText(Cell cell) const
{
    if (cell.column >= m_columns.size() || cell.rail >= m_columns[cell.column].cells.size())
        return tr("No response is chosen");
    const ResponseColumn &column = m_columns[cell.column];
    const RailVerdict &verdict = column.cells[cell.rail].verdict;
    QStringList lines{m_rails[cell.rail].title + QStringLiteral(", ") + m_testNames[cell.column] +
                          QStringLiteral(": ") + utf8(column.response.property.label),
                      utf8(verdict.meanText), utf8(verdict.sentence), utf8(verdict.shareSentence)};
    lines.removeAll(QString());
    return lines.join(QLatin1Char('\n'));
}

void ResponseTable::choose(Cell cell)
{
    if (m_columns.empty() || m_columns.front().cells.empty())
        return;
    m_chosen = {std::min(cell.rail, m_columns.front().cells.size() - 1),
                std::min(cell.column, m_columns.size() - 1)};
    const QRectF place = cellRect(m_chosen.rail, m_chosen.column);
    const auto bring = [](QScrollBar *bar, double from, double to, double low, double high) {
        if (from < low)
            bar->setValue(bar->value() - static_cast<int>(low - from));
        else if (to > high)
            bar->setValue(bar->value() + static_cast<int>(to - high));
    };
    bring(horizontalScrollBar(), place.left(), place.right(), m_labelWidth, viewport()->width());
    bring(verticalScrollBar(), place.top(), place.bottom(), m_headHeight, viewport()->height());
    setAccessibleDescription(cellText(m_chosen));
    viewport()->update();
}

/// The response of the chosen cell becomes the large scale, with the rail's first piece selected.
void ResponseTable::open()
{
    if (m_chosen.column >= m_columns.size() || m_chosen.rail >= m_rails.size())
        return;
    const Response response = m_columns[m_chosen.column].response;
    const std::vector<PieceValue> &values = m_columns[m_chosen.column].cells.at(m_chosen.rail).values;
    if (!values.empty())
        m_session.selectPiece(values.front().piece);
    m_session.setShownTest(response.test);
    m_session.setComparedProperty(utf8(response.property.name));
    m_session.setResponseTableShown(false);
}

void ResponseTable::paintEvent(QPaintEvent *)
{
    QPainter painter(viewport());
    paint(painter, QPointF(horizontalScrollBar()->value(), verticalScrollBar()->value()), viewport()->rect());
    if (hasFocus()) {
        painter.setPen(QPen(currentTheme().accent, 1.0));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(QRectF(viewport()->rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    }
}

void ResponseTable::paintWhole(QPainter &painter)
{
    painter.setFont(font());
    paint(painter, {}, QRectF(QPointF(), QSizeF(wholeSize())));
}

void ResponseTable::paint(QPainter &painter, QPointF scrolled, QRectF area) const
{
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(area, currentTheme().sheet);
    if (m_columns.empty())
        return;
    ResponseLook look{m_session.notation(), currentTheme(), font(), m_session.selectedPiece(), m_confidence};
    const QRectF body(m_labelWidth, m_headHeight, area.width() - m_labelWidth, area.height() - m_headHeight);
    painter.save();
    painter.setClipRect(body);
    for (std::size_t c = 0; c < m_columns.size(); ++c) {
        for (std::size_t r = 0; r < m_columns[c].cells.size(); ++r) {
            look.isChosen = hasFocus() && m_chosen.rail == r && m_chosen.column == c;
            paintResponseCell(painter, placeOf(r, c, scrolled), m_columns[c], r, m_scales[c], look);
        }
    }
    painter.restore();
    for (std::size_t c = 0; c < m_columns.size(); ++c) {
        QRectF head = placeOf(0, c, {scrolled.x(), 0.0});
        head.moveTop(0.0);
        head.setHeight(m_headHeight);
        painter.save();
        painter.setClipRect(QRectF(m_labelWidth, 0.0, area.width(), m_headHeight));
        paintResponseHead(painter, head, m_testNames[c], m_columns[c], m_scales[c], look);
        painter.restore();
    }
    painter.save();
    painter.setClipRect(QRectF(0.0, m_headHeight, m_labelWidth, body.height()));
    for (std::size_t r = 0; r < m_rails.size(); ++r) {
        QRectF label = placeOf(r, 0, {0.0, scrolled.y()});
        label.setLeft(0.0);
        label.setWidth(m_labelWidth);
        paintResponseLabel(painter, label, m_rails[r], look);
    }
    painter.restore();
    painter.setPen(QPen(currentTheme().ink, 1.0));
    painter.drawLine(QPointF(0.0, m_headHeight), QPointF(area.right(), m_headHeight));
    if (wholeSize().height() + 2.0 * m_headHeight < area.height() + m_headHeight)
        paintResponseKey(painter, area, look);
}

void ResponseTable::resizeEvent(QResizeEvent *)
{
    layOut();
}

void ResponseTable::showEvent(QShowEvent *event)
{
    QAbstractScrollArea::showEvent(event);
    layOut();
}

void ResponseTable::mousePressEvent(QMouseEvent *event)
{
    if (const std::optional<Cell> cell = cellAt(event->position())) {
        choose(*cell);
        open();
    }
}

void ResponseTable::keyPressEvent(QKeyEvent *event)
{
    const auto step = [&](int rails, int columns) {
        const auto moved = [](std::size_t from, int by) {
            return by < 0 && from == 0 ? 0 : from + static_cast<std::size_t>(by);
        };
        choose({moved(m_chosen.rail, rails), moved(m_chosen.column, columns)});
    };
    switch (event->key()) {
    case Qt::Key_Left:
        return step(0, -1);
    case Qt::Key_Right:
        return step(0, 1);
    case Qt::Key_Up:
        return step(-1, 0);
    case Qt::Key_Down:
        return step(1, 0);
    case Qt::Key_Return:
    case Qt::Key_Enter:
        return open();
    default:
        QAbstractScrollArea::keyPressEvent(event);
    }
}

void ResponseTable::focusInEvent(QFocusEvent *)
{
    viewport()->update();
}

void ResponseTable::focusOutEvent(QFocusEvent *)
{
    viewport()->update();
}

bool ResponseTable::viewportEvent(QEvent *event)
{
    if (event->type() != QEvent::ToolTip)
        return QAbstractScrollArea::viewportEvent(event);
    const auto *help = static_cast<QHelpEvent *>(event);
    const std::optional<std::size_t> column = columnAt(help->pos().x());
    if (const std::optional<Cell> cell = cellAt(QPointF(help->pos())))
        showPlainTip(help->globalPos(), cellText(*cell), viewport());
    else if (column && help->pos().y() < m_headHeight)
        showPlainTip(help->globalPos(),
                     utf8(m_columns[*column].response.property.label) + QLatin1Char('\n') +
                         utf8(m_columns[*column].response.property.definition),
                     viewport());
    else
        QToolTip::hideText();
    return true;
}

} // namespace inchpeg::app
