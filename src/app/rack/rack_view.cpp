// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/rack/rack_view.h"

#include "app/theme/plain_texts.h"

#include <QDragEnterEvent>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMimeData>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr int kSlideMs = 260;

int fileIndexOf(const QMimeData *data)
{
    return data->data(QLatin1String(kFileIndexMime)).toInt();
}

} // namespace

RackView::RackView(ProjectSession &session, PlanState &plan, QWidget *parent)
    : QAbstractScrollArea(parent), m_session(session), m_plan(plan)
{
    setObjectName(QStringLiteral("rack"));
    setAccessibleName(tr("Rails and pegs"));
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::StrongFocus);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setAcceptDrops(true);
    viewport()->setAcceptDrops(true);
    m_slide.setDuration(kSlideMs);
    m_slide.setEasingCurve(QEasingCurve::OutCubic);
    connect(&m_slide, &QVariantAnimation::valueChanged, this, [this](const QVariant &value) {
        m_slid = value.toDouble();
        viewport()->update();
    });
    connect(&session, &ProjectSession::studyChanged, this, &RackView::rebuild);
    connect(&session, &ProjectSession::readingsChanged, this, &RackView::rebuild);
    connect(&session, &ProjectSession::comparisonChanged, this, &RackView::rebuild);
    connect(&session, &ProjectSession::lensChanged, this, &RackView::lensChanged);
    connect(&session, &ProjectSession::notationChanged, this, &RackView::rebuild);
    connect(&session, &ProjectSession::shownRailsChanged, viewport(), qOverload<>(&QWidget::update));
    connect(&session, &ProjectSession::selectionChanged, this, [this] {
        reveal(m_session.selectedPiece());
        describeSelection();
        viewport()->update();
    });
    rebuild();
}

void RackView::rebuild()
{
    const Study *study = m_session.study();
    const std::optional<Property> property = m_session.shownProperty();
    // Sentences stand on the rails only while comparing, and half of the readings make none.
    const bool tells = m_session.lens() == Lens::Compare && !m_session.isReading();
    m_model =
        study != nullptr && property
            ? rackModel(*study, m_session.readings(), *property, m_session.notation(), m_session.shownTest(),
                        tells ? ComparisonDetail::Sentences : ComparisonDetail::Values)
            : RackModel{};
    if (study != nullptr && property && m_session.lens() == Lens::Compare)
        addAverages(m_model, m_averages, *property, m_session.notation());
    if (study != nullptr && m_session.lens() == Lens::Plan)
        addPlan(m_model, *study, m_plan.layout(), m_plan.own(), m_session.workshop(), m_session.notation());
    if (study != nullptr && m_session.lens() == Lens::Log)
        addLog(m_model, *study, m_session.workshop(), m_session.workshopTime());
    viewport()->setWhatsThis(
        tr("%1: %2.\nA peg is a piece, a bar the %3 interval of its rail's mean, an arrow a "
           "value that is only a lower bound. The sentence beside a rail says how it differs "
           "from the reference; the tests behind it are under Ctrl+T.")
            .arg(m_model.scaleTitle, m_model.scaleMeaning, m_model.confidence));
    layOut();
    describeSelection();
    viewport()->update();
}

void RackView::setAverages(const std::map<ConditionId, OwnAverage> &averages)
{
    if (averages == m_averages)
        return;
    m_averages = averages;
    rebuild();
}

void RackView::lensChanged()
{
    rebuild(); // what is planned stands on the rails only while planning
    if (m_session.lens() == Lens::Compare) {
        m_slide.stop();
        m_slide.setStartValue(0.0);
        m_slide.setEndValue(1.0);
        m_slide.start();
    }
    viewport()->update();
}

void RackView::finishSliding()
{
    m_slide.stop();
    m_slid = 1.0;
    viewport()->update();
}

RackSpace RackView::space() const
{
    RackSpace space;
    space.width = viewport()->width();
    space.height = viewport()->height();
    space.comparing = m_session.lens() == Lens::Compare;
    space.lineHeight = fontMetrics().lineSpacing();
    return space;
}

QSize RackView::wholeSize() const
{
    const double content = rackGeometry(m_model, space()).contentHeight;
    return {viewport()->width(), std::max(viewport()->height(), static_cast<int>(std::ceil(content)))};
}

void RackView::paintWhole(QPainter &painter)
{
    RackLook look;
    look.comparing = m_session.lens() == Lens::Compare;
    paintRack(painter, m_model, rackGeometry(m_model, space()), look, currentTheme(),
              QRectF(QPointF(0, 0), wholeSize()));
}

void RackView::layOut()
{
    RackSpace space = this->space();
    const double content = rackGeometry(m_model, space).contentHeight;
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(static_cast<int>(space.lineHeight));
    verticalScrollBar()->setRange(0, std::max(0, static_cast<int>(content) - viewport()->height()));
    space.scrollY = verticalScrollBar()->value();
    m_geometry = rackGeometry(m_model, space);
}

std::optional<PegHit> RackView::find(PieceId piece) const
{
    for (std::size_t r = 0; r < m_model.rails.size(); ++r) {
        for (std::size_t p = 0; p < m_model.rails[r].pegs.size(); ++p) {
            if (m_model.rails[r].pegs[p].piece == piece)
                return PegHit{r, p};
        }
    }
    return std::nullopt;
}

std::optional<QPointF> RackView::pegPosition(PieceId piece) const
{
    const std::optional<PegHit> hit = find(piece);
    if (!hit)
        return std::nullopt;
    const RackGeometry::Rail &rail = m_geometry.rails[hit->rail];
    return m_session.lens() == Lens::Compare ? rail.places[hit->peg] : rail.holes[hit->peg];
}

void RackView::describeSelection()
{
    const std::optional<PegHit> hit = find(m_session.selectedPiece());
    if (!hit) {
        setAccessibleDescription(tr("No piece is selected"));
        return;
    }
    const RailModel &rail = m_model.rails[hit->rail];
    setAccessibleDescription(tr("Rail %1, piece %2").arg(rail.title, rail.pegs[hit->peg].tip));
}

void RackView::reveal(PieceId piece)
{
    const std::optional<PegHit> hit = find(piece);
    if (!hit)
        return;
    const QRectF row = m_geometry.rails[hit->rail].row;
    const double top = m_session.lens() == Lens::Compare ? m_geometry.scaleBar.height() : 0.0;
    QScrollBar *bar = verticalScrollBar();
    if (row.top() < top)
        bar->setValue(bar->value() + static_cast<int>(row.top() - top));
    else if (row.bottom() > viewport()->height())
        bar->setValue(bar->value() + static_cast<int>(row.bottom()) - viewport()->height());
}

QString RackView::emptyText()
{
    return tr(
        "No rails yet. Each condition of the test becomes a rail with a peg for each piece: say under Ask "
        "& plan (Ctrl+1) what is varied and over which levels, then press Make the rails.");
}

void RackView::paintEvent(QPaintEvent *)
{
    QPainter painter(viewport());
    RackLook look;
    look.comparing = m_session.lens() == Lens::Compare;
    look.slid = m_slid;
    look.dimOtherTests = m_session.lens() == Lens::Read;
    look.showCurveSamples = m_session.lens() == Lens::Read;
    look.selectedPiece = m_session.selectedPiece();
    look.dropTarget = m_dropTarget;
    if (m_session.lens() == Lens::Read) {
        for (const RailModel &rail : m_model.rails) {
            if (!m_session.isRailShown(rail.condition))
                look.hiddenRails.insert(rail.condition);
        }
    }
    paintRack(painter, m_model, m_geometry, look, currentTheme(), viewport()->rect());
    if (m_model.rails.empty() && m_session.study() != nullptr) {
        painter.setPen(currentTheme().softInk);
        painter.drawText(QRectF(viewport()->rect()).adjusted(24, 24, -24, -24), Qt::TextWordWrap,
                         emptyText());
    }
    if (hasFocus()) {
        painter.setPen(QPen(currentTheme().accent, 1.0));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(QRectF(viewport()->rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    }
}

void RackView::resizeEvent(QResizeEvent *)
{
    layOut();
}

void RackView::scrollContentsBy(int, int)
{
    layOut();
    viewport()->update();
}

void RackView::mousePressEvent(QMouseEvent *event)
{
    if (const auto hit = pegAt(m_geometry, event->position(), m_session.lens() == Lens::Compare)) {
        m_session.selectPiece(m_model.rails[hit->rail].pegs[hit->peg].piece);
        return;
    }
    for (std::size_t r = 0; r < m_geometry.rails.size(); ++r) {
        if (!m_geometry.rails[r].label.contains(event->position()))
            continue;
        const RailModel &rail = m_model.rails[r];
        if (m_session.lens() == Lens::Read)
            m_session.setRailShown(rail.condition, !m_session.isRailShown(rail.condition));
        else if (!rail.pegs.empty())
            m_session.selectPiece(rail.pegs.front().piece);
    }
}

void RackView::mouseDoubleClickEvent(QMouseEvent *event)
{
    if (const auto hit = pegAt(m_geometry, event->position(), m_session.lens() == Lens::Compare))
        emit opened(m_model.rails[hit->rail].pegs[hit->peg].piece);
}

void RackView::movePeg(int rails, int pegs)
{
    if (m_model.rails.empty())
        return;
    const PegHit from = find(m_session.selectedPiece()).value_or(PegHit{});
    const auto clamped = [](int wanted, std::size_t count) {
        return static_cast<std::size_t>(std::clamp(wanted, 0, static_cast<int>(count) - 1));
    };
    const std::size_t rail = clamped(static_cast<int>(from.rail) + rails, m_model.rails.size());
    if (m_model.rails[rail].pegs.empty())
        return;
    const std::size_t peg = clamped(static_cast<int>(from.peg) + pegs, m_model.rails[rail].pegs.size());
    m_session.selectPiece(m_model.rails[rail].pegs[peg].piece);
}

void RackView::keyPressEvent(QKeyEvent *event)
{
    switch (event->key()) {
    case Qt::Key_Left:
        movePeg(0, -1);
        break;
    case Qt::Key_Right:
        movePeg(0, 1);
        break;
    case Qt::Key_Up:
        movePeg(-1, 0);
        break;
    case Qt::Key_Down:
        movePeg(1, 0);
        break;
    case Qt::Key_H:
        if (m_session.lens() == Lens::Read)
            m_session.setRailShown(m_session.selectedRail(),
                                   !m_session.isRailShown(m_session.selectedRail()));
        break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        emit opened(m_session.selectedPiece());
        break;
    default:
        QAbstractScrollArea::keyPressEvent(event);
    }
}

void RackView::focusInEvent(QFocusEvent *)
{
    viewport()->update();
}

void RackView::focusOutEvent(QFocusEvent *)
{
    viewport()->update();
}

bool RackView::viewportEvent(QEvent *event)
{
    if (event->type() != QEvent::ToolTip)
        return QAbstractScrollArea::viewportEvent(event);
    const auto *help = static_cast<QHelpEvent *>(event);
    const QPointF at(help->pos());
    if (const auto hit = pegAt(m_geometry, at, m_session.lens() == Lens::Compare)) {
        showPlainTip(help->globalPos(), m_model.rails[hit->rail].pegs[hit->peg].tip, viewport());
        return true;
    }
    if (m_session.lens() == Lens::Compare && m_geometry.scaleBar.contains(at)) {
        showPlainTip(help->globalPos(), m_model.scaleTitle + QLatin1Char('\n') + m_model.scaleMeaning,
                     viewport());
        return true;
    }
    for (std::size_t r = 0; r < m_geometry.rails.size(); ++r) {
        const RailModel &rail = m_model.rails[r];
        if (m_geometry.rails[r].sentence.contains(at)) {
            showPlainTip(help->globalPos(),
                         QStringList({rail.meanText, rail.sentence, rail.shareSentence, rail.averageText})
                             .join(QLatin1Char('\n'))
                             .trimmed(),
                         viewport());
            return true;
        }
        if (m_geometry.rails[r].label.contains(at)) {
            showPlainTip(help->globalPos(), rail.title + QLatin1Char('\n') + rail.subtitle, viewport());
            return true;
        }
    }
    QToolTip::hideText();
    return true;
}

void RackView::dragEnterEvent(QDragEnterEvent *event)
{
    if (event->mimeData()->hasFormat(QLatin1String(kFileIndexMime)))
        event->acceptProposedAction();
    else
        event->ignore(); // files from outside are taken by the window
}

void RackView::dragMoveEvent(QDragMoveEvent *event)
{
    const auto hit = pegAt(m_geometry, event->position(), false);
    m_dropTarget = hit ? std::optional(m_model.rails[hit->rail].pegs[hit->peg].piece) : std::nullopt;
    event->setAccepted(hit.has_value());
    viewport()->update();
}

void RackView::dragLeaveEvent(QDragLeaveEvent *)
{
    m_dropTarget.reset();
    viewport()->update();
}

void RackView::dropEvent(QDropEvent *event)
{
    if (const auto hit = pegAt(m_geometry, event->position(), false)) {
        event->acceptProposedAction();
        emit fileDropped(fileIndexOf(event->mimeData()), m_model.rails[hit->rail].pegs[hit->peg].piece);
    }
    m_dropTarget.reset();
    viewport()->update();
}

} // namespace inchpeg::app
