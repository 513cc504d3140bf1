// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/read_view.h"

#include "app/read/qcustomplot_light.h"
#include "app/theme/theme.h"
#include "app/window/form_parts.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QPicture>
#include <QScrollArea>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr double kZoomStep = 0.8;
constexpr double kPanStep = 0.1;
constexpr int kWidestCard = 290;
constexpr int kNarrowestCard = 235;

QVector<double> toVector(const std::vector<double> &values)
{
    return {values.begin(), values.end()};
}

} // namespace

ReadView::ReadView(ProjectSession &session, ReadPresenter &presenter, QWidget *parent)
    : QWidget(parent), m_session(session), m_presenter(presenter)
{
    setObjectName(QStringLiteral("readView"));
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(8, 8, 8, 8);
    layout->addWidget(createPlot(), 3);
    layout->addWidget(createCard(), 2);
    connect(&session, &ProjectSession::readingsChanged, this, &ReadView::redraw);
    connect(&session, &ProjectSession::studyChanged, this, &ReadView::redraw);
    connect(&session, &ProjectSession::shownRailsChanged, this, &ReadView::redraw);
    connect(&session, &ProjectSession::selectionChanged, this, &ReadView::redraw);
    connect(&session, &ProjectSession::lensChanged, this, &ReadView::redraw);
    redraw();
}

QWidget *ReadView::createPlot()
{
    m_plot = new QCustomPlot;
    m_plot->setObjectName(QStringLiteral("curvePlot"));
    m_plot->setAccessibleName(tr("Curves of the shown rails"));
    m_plot->setFocusPolicy(Qt::StrongFocus);
    m_plot->setMinimumSize(120, 120);
    m_plot->setInteractions(QCP::iRangeDrag | QCP::iRangeZoom);
    m_plot->installEventFilter(this);
    connect(m_plot, &QCustomPlot::mousePress, this,
            [this](QMouseEvent *event) { selectAt(event->position()); });
    connect(m_plot, &QCustomPlot::mouseDoubleClick, this, &ReadView::showAll);
    m_empty = softLabel({}, m_plot);
    m_empty->setAlignment(Qt::AlignCenter);
    auto *centred = new QVBoxLayout(m_plot);
    centred->addWidget(m_empty);
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(m_plot, 1);
    layout->addWidget(softLabel(tr("Wheel or + − zooms, drag or arrows pan, F shows all. Click a curve to "
                                   "choose its peg; click a rail's name to hide or show it.")));
    return box;
}

QWidget *ReadView::createCard()
{
    auto *card = new QWidget;
    auto *layout = new QVBoxLayout(card);
    layout->setContentsMargins(6, 4, 10, 6);
    m_title = heading({});
    m_title->setObjectName(QStringLiteral("pieceTitle"));
    m_origin = softLabel({});
    m_origin->setTextInteractionFlags(Qt::TextSelectableByMouse);
    auto *properties = new QWidget;
    m_properties = new QGridLayout(properties);
    m_properties->setContentsMargins(0, 4, 0, 4);
    m_properties->setVerticalSpacing(3);
    m_attention = new QLabel;
    m_attention->setObjectName(QStringLiteral("attention"));
    m_attention->setProperty("role", QStringLiteral("warning"));
    m_attention->setWordWrap(true);
    m_exclusion = new QLabel;
    m_exclusion->setWordWrap(true);
    m_reason =
        lineEdit("exclusionReason", tr("Reason for leaving the piece out"), tr("why it does not count"));
    m_leaveOut = button("leaveOut", tr("Leave out"));
    m_takeBack = button("takeBack", tr("Take back in"));
    m_takeOff = button("takeOffRecord", tr("Take the record off this peg"));
    const auto leaveOut = [this] {
        if (m_presenter.leaveOut(m_reason->text()))
            m_reason->clear();
    };
    connect(m_leaveOut, &QPushButton::clicked, this, leaveOut);
    connect(m_reason, &QLineEdit::returnPressed, this, leaveOut);
    connect(m_takeBack, &QPushButton::clicked, &m_presenter, &ReadPresenter::takeBackIn);
    connect(m_takeOff, &QPushButton::clicked, &m_presenter, &ReadPresenter::takeOffRecord);
    layout->addWidget(m_title);
    layout->addWidget(m_origin);
    layout->addWidget(properties);
    layout->addWidget(m_attention);
    layout->addWidget(m_exclusion);
    auto *reason = new QHBoxLayout;
    reason->addWidget(m_reason, 1);
    reason->addWidget(m_leaveOut);
    layout->addLayout(reason);
    layout->addWidget(m_takeBack);
    layout->addWidget(m_takeOff);
    layout->addStretch();
    auto *scroll = new QScrollArea;
    scroll->setWidget(card);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setMinimumWidth(kNarrowestCard);
    scroll->setMaximumWidth(kWidestCard);
    return scroll;
}

void ReadView::redraw()
{
    if (m_session.lens() != Lens::Read)
        return;
    dressPlot();
    drawCurves();
    drawMarkers();
    m_empty->setText(m_presenter.emptyText());
    m_empty->setVisible(!m_empty->text().isEmpty());
    const StudyId study = m_session.study() != nullptr ? m_session.study()->id : StudyId{};
    if (m_fitted != study && !m_drawn.empty()) {
        m_fitted = study;
        showAll();
    }
    if (!m_plot->size().isEmpty()) // not laid out yet: it draws itself when it is
        m_plot->replot(QCustomPlot::rpQueuedReplot);
    refreshCard();
}

void ReadView::dressPlot()
{
    const Theme &theme = currentTheme();
    m_plot->setBackground(theme.sheet);
    m_plot->xAxis->setLabel(m_presenter.xTitle());
    m_plot->yAxis->setLabel(m_presenter.yTitle());
    for (QCPAxis *axis : {m_plot->xAxis, m_plot->yAxis}) {
        axis->setBasePen(QPen(theme.ink, 1));
        axis->setTickPen(QPen(theme.ink, 1));
        axis->setSubTickPen(QPen(theme.line, 1));
        axis->setTickLabelColor(theme.ink);
        axis->setLabelColor(theme.ink);
        axis->setTickLabelFont(font());
        axis->setLabelFont(font());
        axis->grid()->setPen(QPen(theme.line, 1, Qt::DotLine));
        axis->grid()->setZeroLinePen(QPen(theme.line, 1));
    }
}

void ReadView::drawCurves()
{
    const Theme &theme = currentTheme();
    m_plot->clearPlottables();
    m_drawn.clear();
    const PieceId selected = m_session.selectedPiece();
    QCPCurve *onTop = nullptr;
    for (const CurveModel &model : m_presenter.curves()) {
        auto *curve = new QCPCurve(m_plot->xAxis, m_plot->yAxis);
        curve->setData(toVector(model.x), toVector(model.y));
        QColor ink = railInk(theme, model.railIndex);
        if (model.leftOut)
            ink.setAlphaF(0.35F);
        QPen pen(ink, 1.0);
        if (!railDashes(model.railIndex).isEmpty())
            pen.setDashPattern(railDashes(model.railIndex));
        if (model.piece == selected) {
            pen = QPen(theme.accent, 2.4);
            onTop = curve;
            drawTail(model);
        }
        curve->setPen(pen);
        curve->setBrush(Qt::NoBrush);
        m_drawn[curve] = model.piece;
    }
    if (onTop != nullptr)
        onTop->setLayer(QStringLiteral("axes"));
}

/// What came after the break is drawn for the chosen piece only; the others would fill the picture with
/// falls.
void ReadView::drawTail(const CurveModel &model)
{
    auto *tail = new QCPCurve(m_plot->xAxis, m_plot->yAxis);
    tail->setData(toVector(model.tailX), toVector(model.tailY));
    tail->setPen(QPen(currentTheme().accent, 1.0, Qt::DotLine));
}

void ReadView::drawMarkers()
{
    const Theme &theme = currentTheme();
    m_plot->clearItems();
    QStringList meanings;
    for (const MarkerModel &marker : m_presenter.markers()) {
        auto *text = new QCPItemText(m_plot);
        text->position->setCoords(marker.at.x(), marker.at.y());
        auto *dot = new QCPItemEllipse(m_plot); // after its name, so that it lies on top
        dot->topLeft->setType(QCPItemPosition::ptAbsolute);
        dot->bottomRight->setType(QCPItemPosition::ptAbsolute);
        dot->topLeft->setParentAnchor(text->position);
        dot->bottomRight->setParentAnchor(text->position);
        dot->topLeft->setCoords(-4, -4);
        dot->bottomRight->setCoords(4, 4);
        dot->setPen(QPen(theme.accent, 2));
        dot->setBrush(theme.sheet);
        text->setText(marker.name);
        meanings << marker.name + QStringLiteral(": ") + marker.meaning;
        text->setFont(font());
        text->setColor(theme.accent);
        QColor behind = theme.sheet;
        behind.setAlphaF(0.75F);
        text->setBrush(behind);
        text->setPositionAlignment(marker.side);
        text->setPadding(QMargins(9, 5, 9, 5));
        text->setClipToAxisRect(false);
        dot->setClipToAxisRect(true);
    }
    m_plot->setToolTip(meanings.join(QLatin1Char('\n')));
}

QSize ReadView::plotSize() const
{
    return m_plot->size();
}

void ReadView::paintPlot(QPainter &painter, QSize size)
{
    // The plotting library paints with a painter of its own class; a picture carries its strokes over as
    // vectors.
    QPicture strokes;
    QCPPainter plotPainter(&strokes);
    plotPainter.setMode(QCPPainter::pmVectorized);
    plotPainter.setMode(QCPPainter::pmNoCaching);
    m_plot->toPainter(&plotPainter, size.width(), size.height());
    plotPainter.end();
    painter.fillRect(QRect(QPoint(0, 0), size), currentTheme().sheet);
    painter.drawPicture(0, 0, strokes);
}

void ReadView::showAll()
{
    m_plot->rescaleAxes();
    for (QCPAxis *axis : {m_plot->xAxis, m_plot->yAxis}) {
        const QCPRange range = axis->range();
        axis->setRange(range.lower - 0.03 * range.size(), range.upper + 0.07 * range.size());
    }
    m_plot->replot(QCustomPlot::rpQueuedReplot);
}

void ReadView::zoom(double factor)
{
    for (QCPAxis *axis : {m_plot->xAxis, m_plot->yAxis})
        axis->scaleRange(factor, axis->range().center());
    m_plot->replot(QCustomPlot::rpQueuedReplot);
}

void ReadView::pan(double shareX, double shareY)
{
    m_plot->xAxis->moveRange(shareX * m_plot->xAxis->range().size());
    m_plot->yAxis->moveRange(shareY * m_plot->yAxis->range().size());
    m_plot->replot(QCustomPlot::rpQueuedReplot);
}

void ReadView::selectAt(QPointF position)
{
    const auto hit = m_drawn.find(m_plot->plottableAt(position, false));
    if (hit != m_drawn.end())
        m_session.selectPiece(hit->second);
}

void ReadView::refreshCard()
{
    const PieceCard card = m_presenter.card();
    m_title->setText(card.title);
    m_origin->setText(card.title.isEmpty() ? QString() : tr("%1\n%2").arg(card.section, card.origin));
    while (QLayoutItem *item = m_properties->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    int row = 0;
    for (const PropertyLine &line : card.properties) {
        auto *label = new QLabel(line.label);
        auto *value = new QLabel(line.value);
        value->setAlignment(Qt::AlignRight);
        value->setTextInteractionFlags(Qt::TextSelectableByMouse);
        for (QLabel *part : {label, value})
            part->setToolTip(line.rule);
        m_properties->addWidget(label, row, 0);
        m_properties->addWidget(value, row++, 1);
    }
    m_attention->setText(card.attention.join(QStringLiteral("\n\n")));
    m_attention->setVisible(!card.attention.isEmpty());
    m_exclusion->setText(card.exclusionText);
    m_exclusion->setVisible(card.isLeftOut);
    m_reason->setVisible(card.canLeaveOut);
    m_leaveOut->setVisible(card.canLeaveOut);
    m_takeBack->setVisible(card.isLeftOut);
    m_takeOff->setVisible(card.hasRecord);
}

void ReadView::keyPressEvent(QKeyEvent *event)
{
    switch (event->key()) {
    case Qt::Key_Plus:
    case Qt::Key_Equal:
        zoom(kZoomStep);
        break;
    case Qt::Key_Minus:
        zoom(1.0 / kZoomStep);
        break;
    case Qt::Key_F:
        showAll();
        break;
    case Qt::Key_Left:
        pan(-kPanStep, 0.0);
        break;
    case Qt::Key_Right:
        pan(kPanStep, 0.0);
        break;
    case Qt::Key_Up:
        pan(0.0, kPanStep);
        break;
    case Qt::Key_Down:
        pan(0.0, -kPanStep);
        break;
    default:
        QWidget::keyPressEvent(event);
    }
}

bool ReadView::eventFilter(QObject *watched, QEvent *event)
{
    if (watched == m_plot && event->type() == QEvent::KeyPress) {
        auto *key = static_cast<QKeyEvent *>(event);
        key->setAccepted(true);
        keyPressEvent(key);
        return key->isAccepted();
    }
    return QWidget::eventFilter(watched, event);
}

void ReadView::changeEvent(QEvent *event)
{
    if (event->type() == QEvent::PaletteChange || event->type() == QEvent::FontChange)
        redraw();
    QWidget::changeEvent(event);
}

} // namespace inchpeg::app
