<p>Hekto</p>
