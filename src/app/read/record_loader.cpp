// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/record_loader.h"

namespace inchpeg::app
{

RecordLoader::RecordLoader(ProjectSession &session, QObject *parent) : QObject(parent), m_session(session)
{
    for (const auto signal : {&ProjectSession::selectionChanged, &ProjectSession::studyChanged,
                              &ProjectSession::lensChanged, &ProjectSession::readingsChanged})
        connect(&session, signal, this, &RecordLoader::load);
}

std::shared_ptr<const PieceRecord> RecordLoader::record() const
{
    const std::optional<OrderedReading> order = m_session.readingOrder(m_session.selectedPiece());
    return order && order->piece == m_piece && order->inputs == m_inputs ? m_record : nullptr;
}

void RecordLoader::load()
{
    if (m_session.lens() != Lens::Read || m_task.isRunning())
        return; // take() looks again
    std::optional<OrderedReading> order = m_session.readingOrder(m_session.selectedPiece());
    if (!order || !order->order) {
        if (m_record) {
            m_record.reset();
            m_inputs.clear();
        }
        return;
    }
    if (order->piece == m_piece && order->inputs == m_inputs)
        return;
    m_loading = order;
    m_task.begin(
        "record",
        [path = m_session.project().path(), wanted = std::move(*order)]() -> Loaded {
            return std::make_shared<const Result<PieceRecord>>(readWholeRecord(path, wanted));
        },
        [this](const Result<Loaded> &result) { take(result); });
}

void RecordLoader::take(const Result<Loaded> &result)
{
    m_session.tell(result ? ok() : Status(result.error()));
    const Loaded loaded = result ? *result : std::make_shared<const Result<PieceRecord>>(result.error());
    m_piece = m_loading->piece;
    m_inputs = m_loading->inputs;
    m_loading.reset();
    m_record = loaded->has_value() ? std::shared_ptr<const PieceRecord>(loaded, &loaded->value()) : nullptr;
    emit recordChanged();
    load(); // the person may have gone on meanwhile
}

} // namespace inchpeg::app
